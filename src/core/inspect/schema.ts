import * as z from 'zod';
import { FORMS } from '../extract/extract';
import { KINDS, REASONS, ROLES, SEVERITIES, STORAGES } from '../extract/words';

/** What a condition of a sieve does to the rows that are there. */
export const accountSchema = z.object({
  says: z.string(),
  keeps: z.number().describe('rows that it keeps, by itself, of all'),
  drops: z.number(),
  dropsAlone: z.number().describe('rows that fail it and no other'),
  left: z.number().describe('rows left after it and those before it'),
});
/** The number of rows there, without those set aside; of those; and of the rows kept. */
export const rowCountsSchema = z.object({ all: z.number(), aside: z.number(), kept: z.number() });
export type RowCounts = z.infer<typeof rowCountsSchema>;

const notice = z.object({ line: z.number().optional(), says: z.string() });
const figure = z.union([z.number(), z.string()]).nullable();

export const frequencySchema = z.object({
  code: z.string(),
  label: z.string().nullable(),
  count: z.number(),
  shareOfAll: z.number(),
  /** `null` for codes of rows that were not asked. */
  shareOfAsked: z.number().nullable(),
  /** `null` for missing codes. */
  shareOfValid: z.number().nullable(),
  missing: z.boolean(),
  /** All spellings of one number, the most frequent first, where there are several. */
  spellings: z.array(z.string()).optional(),
});

export const variableSchema = z.object({
  name: z.string(),
  position: z.number(),
  label: z.string().nullable(),
  storage: z.enum(STORAGES),
  kind: z.enum(KINDS),
  role: z.enum(ROLES),
  /** The name that a person gave it; `null` for the archive's own. */
  called: z.string().nullable(),
  /** What a person wrote down about it. */
  note: z.string().nullable(),
  signedOff: z.boolean(),
  /** Whether a person confirmed the kind; the command line's is always presumed. */
  confirmed: z.boolean(),
  confidence: z.number(),
  because: z.array(z.string()),
  counts: z.object({
    all: z.number(),
    blank: z.number(),
    unreadable: z.number(),
    missing: z.number(),
    notAsked: z.number(),
    valid: z.number(),
    distinct: z.number(),
  }),
  missingCodes: z.array(
    z.object({
      code: z.string(),
      label: z.string().nullable(),
      reason: z.enum(REASONS),
      count: z.number(),
      declaredBy: z.enum(['codebook', 'ruling']),
    }),
  ),
  /** Figures that the kind does not admit are `null`. Dates and times are ISO 8601 texts. */
  statistics: z.object({
    min: figure,
    max: figure,
    mean: z.number().nullable(),
    sd: z.number().nullable(),
    variance: z.number().nullable(),
    /** The highest less the lowest value. */
    range: z.number().nullable(),
    median: z.number().nullable(),
    q1: z.number().nullable(),
    q3: z.number().nullable(),
    skewness: z.number().nullable(),
    kurtosis: z.number().nullable(),
    mode: z.array(z.string()),
  }),
  frequencies: z.array(frequencySchema),
  frequenciesComplete: z.boolean(),
  /** Texts that cannot be read as the storage, the most frequent first. */
  unreadable: z.array(z.object({ text: z.string(), count: z.number() })),
  /** Where its median, quartiles and flags, and what it is, are told by a sample: the rows of that. */
  sampled: z.number().optional(),
  /** Where `distinct` is an estimate: its standard error, as a share of it. */
  distinctError: z.number().optional(),
  /** A trial recode: it stands in no file. */
  trial: z.literal(true).optional(),
});

export const flagSchema = z.object({
  rule: z.string(),
  variables: z.array(z.string()),
  codes: z.array(z.string()),
  rows: z.number(),
  severity: z.enum(SEVERITIES),
  certainty: z.number(),
  says: z.string(),
  at: z.array(z.number()).optional(),
  atAll: z.number().optional(),
  into: z.record(z.string(), z.string()).optional(),
  /** Who was not asked: steps that settle some rows each, and a last variable that settles the others. */
  universe: z
    .object({
      steps: z.array(z.object({ by: z.string(), codes: z.array(z.string()), asked: z.boolean() })).optional(),
      by: z.string(),
      shut: z.array(z.string()),
    })
    .optional(),
  /** Why its codes are missing, where a standing rule says so. */
  reason: z.enum(REASONS).optional(),
});

const replayed = z.object({
  entry: z.string(),
  says: z.string(),
  why: z.string().nullable().describe('null where it fits as it is'),
  rows: z.number().nullable().describe('rows that it bears on here'),
});

/** The inspection: everything found in an extract, as one JSON document. */
export const inspectionSchema = z.object({
  format: z.literal('dig-first-inspection'),
  version: z.literal(1),
  source: z.object({
    name: z.string(),
    files: z.array(
      z.object({
        name: z.string(),
        bytes: z.number(),
        rows: z.number(),
        columns: z.number(),
        form: z.enum([...FORMS, 'table']),
        encoding: z.string(),
        delimiter: z.string().nullable(),
        header: z.boolean(),
        /** The sheet that was read, of a workbook. */
        sheet: z.string().optional(),
        /** What the file is called among the waves. */
        wave: z.string().optional(),
        /** Whether rows were left unread on purpose. */
        partial: z.boolean().optional(),
        notices: z.array(notice),
      }),
    ),
    codebooks: z.array(z.object({ name: z.string(), form: z.string() })),
    notices: z.array(notice),
    /** What was left unread on purpose: only the first rows, or only some variables. */
    part: z.object({ rows: z.number().nullable(), names: z.array(z.string()).nullable() }).optional(),
    /** The sieve in force, and what it does to the rows. */
    sieve: z.array(accountSchema).optional(),
    rows: rowCountsSchema.optional(),
    /** Where all rows were read and counted and only a sample of them is held: how many of each, and the rules left out. */
    pass: z.object({ rows: z.number(), held: z.number(), leftOut: z.array(z.string()) }).optional(),
    /** Where the rows stay in a database: which, what of it, and what was asked of it and came back. */
    database: z
      .object({
        at: z.string().describe('host, port and database'),
        table: z.string().optional(),
        query: z.string().optional(),
        statements: z.number(),
        bytes: z.number(),
      })
      .optional(),
    /** What the rulings of an earlier log come to here. */
    replay: z
      .object({ fits: z.array(replayed), changed: z.array(replayed), misfits: z.array(replayed) })
      .optional(),
  }),
  rows: z.number(),
  variables: z.array(variableSchema),
  flags: z.array(flagSchema),
  sets: z.array(
    z.object({
      name: z.string(),
      variables: z.array(z.string()),
      because: z.string(),
      within: z.string().nullable().describe('name of the larger set that it is part of'),
      confidence: z.number().describe('probability that a person would make this set'),
      from: z
        .enum(['person', 'codebook', 'found'])
        .describe('made by a person, a group of the codebook, or found by weighing evidence'),
    }),
  ),
});

export type Inspection = z.infer<typeof inspectionSchema>;
export type InspectedVariable = z.infer<typeof variableSchema>;
export type Frequency = z.infer<typeof frequencySchema>;
export type Statistics = InspectedVariable['statistics'];
