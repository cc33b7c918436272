import * as z from 'zod';
import type { Sorting } from './listed';
import { accountSchema, rowCountsSchema } from './schema';
import { CELL_STATES } from './told-rows';

/** Records as a document. */
export const rowsSchema = z.object({
  format: z.literal('dig-first-rows'),
  version: z.literal(1),
  rows: rowCountsSchema,
  sieve: z.array(accountSchema),
  found: z.number().nullable().describe('rows that hold what was looked for; null where nothing was'),
  records: z.array(
    z.object({
      row: z.number().describe('one-based, over the whole extract, rows set aside counted'),
      file: z.string(),
      line: z.number().nullable().describe('line of the file at which the record begins'),
      failed: z.array(z.number()).describe('zero-based conditions that it fails, of a sieve'),
      cells: z.array(
        z.object({
          variable: z.string(),
          raw: z.string().describe('what the file holds'),
          code: z.string().nullable().describe('what it counts as; null where blank or unreadable'),
          label: z.string().nullable(),
          state: z.enum(CELL_STATES),
          corrected: z.literal(true).optional(),
        }),
      ),
    }),
  ),
});
export type RowsDocument = z.infer<typeof rowsSchema>;

/** Which records are wanted. */
export interface RowsWanted {
  variables: readonly string[];
  sort: readonly Sorting[];
  find: string | null;
  /** Those that the sieve in force drops instead of those that it keeps. */
  dropped: boolean;
  /** How many to pass over, and how many to tell. */
  from: number;
  take: number;
}
