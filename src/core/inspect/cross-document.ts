import * as z from 'zod';
import { KINDS } from '../extract/words';
import { accountSchema, rowCountsSchema } from './schema';
import { CELL_STATES } from './told-rows';

const number = z.number().nullable();
const measure = z
  .object({
    n: z.number(),
    mean: number,
    sd: number,
    min: number,
    q1: number,
    median: number,
    q3: number,
    max: number,
  })
  .optional();
const code = z.object({ code: z.string(), label: z.string().nullable(), state: z.enum(CELL_STATES) });
/** A code on a side of a table. */
export type CodeTold = z.infer<typeof code>;
const side = z.object({
  variable: z.string(),
  label: z.string().nullable().describe('of the variable'),
  codes: z.array(code),
  bins: z
    .object({ size: z.number(), start: z.number() })
    .optional()
    .describe('equal bins that a measure was put into for this table alone'),
});
const margin = z.object({ code: z.string(), rows: z.number(), weighted: z.number(), share: number, measure });
const table = z.object({
  within: z.string().nullable().describe('the level; null for all rows of the base'),
  rows: z.number(),
  weighted: z.number(),
  chiSquare: number,
  degreesOfFreedom: number,
  cramersV: number,
  measure,
  down: z.array(margin),
  across: z.array(margin).nullable(),
  cells: z.array(
    z.object({
      down: z.string(),
      across: z.string().nullable(),
      rows: z.number(),
      weighted: z.number(),
      shareOfRow: number,
      shareOfColumn: number,
      shareOfAll: number,
      expected: number,
      adjustedResidual: number,
      small: z.boolean(),
      measure,
    }),
  ),
});
export type TableTold = z.infer<typeof table>;

const head = {
  format: z.literal('dig-first-cross-check'),
  version: z.literal(1),
  rows: rowCountsSchema,
  sieve: z.array(accountSchema),
  down: side,
  weight: z.string().nullable(),
};

/** One variable down, one across, one within whose levels the table is repeated. */
export const crossSchema = z.object({
  ...head,
  across: side.nullable(),
  within: side.nullable(),
  base: z.object({
    rows: z.number(),
    weighted: z.number(),
    leftOut: z.object({ down: z.number(), across: z.number(), within: z.number(), weight: z.number() }),
  }),
  tables: z.array(table),
});
export type CrossDocument = z.infer<typeof crossSchema>;

/** One variable against every other, the strongest first. */
export const everythingSchema = z.object({
  ...head,
  pairs: z.array(
    z.object({
      variable: z.string(),
      label: z.string().nullable(),
      kind: z.enum(KINDS),
      base: z.number().describe('rows valid in both'),
      cramersV: number.optional().describe('of nominal and ordinal ones'),
      etaSquared: number.optional().describe('of counts and continuous ones'),
      cells: number.describe('cells beyond ±3 adjusted residuals; null for measures'),
    }),
  ),
});
export type EverythingDocument = z.infer<typeof everythingSchema>;
