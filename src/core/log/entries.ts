import * as z from 'zod';
import type { RowName } from '../extract/row-names';
import { KINDS, REASONS, ROLES } from '../extract/words';
import { tableSchema } from '../cross/kept-table';
import type { Extract as Received } from '../extract/extract';
import { stepsOf, stepsSchema } from '../intake/steps';
import { recodeSchema } from '../recode/recode';
import { partSchema } from '../sieve/condition';

/** Version of the log's format; a reader of a later version migrates earlier entries. */
export const LOG_VERSION = 6;

const common = {
  id: z.string().min(1),
  /** ISO 8601 time of the decision. */
  at: z.string().min(1),
  /** The person's own reason, if given. */
  why: z.string().nullable(),
};
const names = z.array(z.string()).min(1);

/** What makes a set. @see ThematicSet */
const madeSet = {
  set: z.string().min(1),
  name: z.string().min(1),
  variables: names,
  /** The set that it is part of. */
  within: z.string().nullable().optional(),
  /** The name of the proposal that it was, if it was one. */
  proposed: z.string().nullable().optional(),
};

/** A row by what it is, not by where it happens to stand among all others. */
const rowNameSchema: z.ZodType<RowName> = z.object({
  file: z.string().nullable(),
  row: z.number().int().min(0),
  cells: z
    .string()
    .regex(/^[0-9a-f]{16}$/)
    .nullable(),
  of: z.array(z.string()).nullable(),
  identifier: z.object({ variable: z.string(), text: z.string() }).nullable(),
  added: z.string().min(1).optional(),
});

/** The conditions of a sieve, as a person made them. */
const parts = z.array(partSchema).min(1);

/** One decision of a person, as data laid over the extract. Entries are never changed and never removed. */
export const entrySchema = z.discriminatedUnion('type', [
  /** A person says the kind of variables, be it the presumed one or another. */
  z.object({
    ...common,
    type: z.literal('confirm-kind'),
    kinds: z.array(z.object({ variable: z.string(), kind: z.enum(KINDS) })).min(1),
  }),
  /** Codes are declared to stand for no answer. */
  z.object({
    ...common,
    type: z.literal('declare-missing'),
    variables: names,
    codes: z.array(z.object({ code: z.string(), reason: z.enum(REASONS) })).min(1),
    /** The rule whose flag is answered, if one is. */
    rule: z.string().nullable(),
  }),
  /** Labels for codes, typed or pasted; they stand beside the archive's own, which are kept. */
  z.object({
    ...common,
    type: z.literal('label-codes'),
    variables: names,
    labels: z.array(z.object({ code: z.string(), label: z.string().min(1) })).min(1),
  }),
  /** Codes that a rule flagged are real, or a remark on rows or the whole is read and left as it is. */
  z.object({
    ...common,
    type: z.literal('keep-valid'),
    variables: z.array(z.string()),
    codes: z.array(z.string()),
    rule: z.string(),
  }),
  /** Codes that are other ways to write one code: they count for it. A single slip is corrected the same way. */
  z.object({
    ...common,
    type: z.literal('merge-codes'),
    variables: names,
    codes: z.array(z.string()).min(1),
    into: z.string(),
    rule: z.string().nullable(),
  }),
  /** Rows that are no observations, or the same one twice: they count nowhere. */
  z.object({
    ...common,
    type: z.literal('set-aside'),
    rows: z.array(rowNameSchema).min(1),
    rule: z.string().nullable(),
  }),
  /** Rows that were set aside, as they were named then, count again. */
  z.object({ ...common, type: z.literal('count-again'), rows: z.array(rowNameSchema).min(1) }),
  /** What a variable is for, as a person says. */
  z.object({
    ...common,
    type: z.literal('confirm-role'),
    roles: z.array(z.object({ variable: z.string(), role: z.enum(ROLES) })).min(1),
  }),
  /**
   * Blanks of a variable are rows that were not asked wherever another holds one of these codes, in so far as the steps before,
   * where there are any, have not settled a row: as asked, or as not asked.
   */
  z.object({
    ...common,
    type: z.literal('accept-universe'),
    variable: z.string(),
    by: z.string(),
    shut: z.array(z.string()).min(1),
    steps: z
      .array(z.object({ by: z.string(), codes: z.array(z.string()).min(1), asked: z.boolean() }))
      .optional(),
  }),
  /** A question to the archive, written down for the handoff; the flag is left until the answer comes. */
  z.object({
    ...common,
    type: z.literal('ask-archive'),
    variables: z.array(z.string()),
    codes: z.array(z.string()),
    rule: z.string(),
    question: z.string().min(1),
  }),
  /** Somebody has looked at variables and found them in order, or takes that back. */
  z.object({ ...common, type: z.literal('sign-off'), variables: names, done: z.boolean() }),
  /** What a person wrote down about a variable; empty to take it away. */
  z.object({ ...common, type: z.literal('note'), variable: z.string(), text: z.string() }),
  /** A name or label that a person gave; `null` for the archive's own. */
  z.object({
    ...common,
    type: z.literal('rename'),
    variable: z.string(),
    name: z.string().min(1).nullable(),
    label: z.string().min(1).nullable(),
  }),
  /** The order of categories, lowest first. */
  z.object({
    ...common,
    type: z.literal('order-codes'),
    variables: names,
    codes: z.array(z.string()).min(2),
  }),
  /** The weight in force for all figures that are shown weighted; `null` for none. */
  z.object({ ...common, type: z.literal('weigh'), by: z.string().min(1).nullable() }),
  /** A thematic set, its variables in the order in which they are to stand. */
  z.object({ ...common, type: z.literal('make-set'), ...madeSet }),
  /** Several at once: proposals that were taken, or sets of another extract. */
  z.object({ ...common, type: z.literal('make-sets'), sets: z.array(z.object(madeSet)).min(1) }),
  z.object({ ...common, type: z.literal('drop-set'), set: z.string().min(1) }),
  z.object({
    ...common,
    type: z.literal('rename-set'),
    set: z.string().min(1),
    name: z.string().min(1),
  }),
  /** Variables join a set, before one of its own or at its end. */
  z.object({
    ...common,
    type: z.literal('add-to-set'),
    set: z.string().min(1),
    variables: names,
    before: z.string().nullable().optional(),
  }),
  z.object({ ...common, type: z.literal('take-from-set'), set: z.string().min(1), variables: names }),
  /** One set becomes part of another; `null` of none. */
  z.object({
    ...common,
    type: z.literal('nest-set'),
    set: z.string().min(1),
    within: z.string().nullable(),
  }),
  /** Several sets become one of them. */
  z.object({
    ...common,
    type: z.literal('merge-sets'),
    sets: z.array(z.string()).min(1),
    into: z.string().min(1),
  }),
  /** Some variables of a set become a set of their own. */
  z.object({ ...common, type: z.literal('split-set'), from: z.string().min(1), ...madeSet }),
  /** A proposed set is sent away for good: it is known by its variables. */
  z.object({ ...common, type: z.literal('send-away'), name: z.string(), variables: names }),
  /** Whether identifier, wave, weight and design variables are in view whatever sets are. */
  z.object({ ...common, type: z.literal('view-always'), on: z.boolean() }),
  /** The sets that are in view from now on; none means every variable. */
  z.object({ ...common, type: z.literal('view-sets'), sets: z.array(z.string()) }),
  /** Cells that count for what a person wrote in place of what was received; that stays, and is shown beside it. */
  z.object({
    ...common,
    type: z.literal('correct-cells'),
    cells: z
      .array(
        z.object({
          row: rowNameSchema,
          variable: z.string(),
          /** The text that was received: where another stands, the correction is of something else. */
          from: z.string(),
          to: z.string(),
        }),
      )
      .min(1),
    rule: z.string().nullable(),
  }),
  /** Rows that a person wrote: they stand behind all that were received. */
  z.object({
    ...common,
    type: z.literal('add-rows'),
    rows: z.array(z.object({ id: z.string().min(1), cells: z.record(z.string(), z.string()) })).min(1),
  }),
  /** A sieve, put in force at once where `use` says so. */
  z.object({
    ...common,
    type: z.literal('make-sieve'),
    sieve: z.string().min(1),
    name: z.string(),
    parts,
    use: z.boolean(),
  }),
  /** Other conditions for a sieve that there is. */
  z.object({
    ...common,
    type: z.literal('change-sieve'),
    sieve: z.string().min(1),
    parts,
    use: z.boolean(),
  }),
  z.object({
    ...common,
    type: z.literal('name-sieve'),
    sieve: z.string().min(1),
    name: z.string().min(1),
  }),
  z.object({ ...common, type: z.literal('drop-sieve'), sieve: z.string().min(1) }),
  /** A trial recode; one of the same name takes the place of the one before. */
  z.object({ ...common, type: z.literal('make-recode'), recode: recodeSchema }),
  z.object({ ...common, type: z.literal('drop-recode'), name: z.string().min(1) }),
  /** The sieve in force from now on; `null` for all rows. */
  z.object({ ...common, type: z.literal('use-sieve'), sieve: z.string().min(1).nullable() }),
  /** A cross-check that one wants again: it goes into the report. */
  z.object({ ...common, type: z.literal('keep-table'), table: z.string().min(1), asked: tableSchema }),
  z.object({ ...common, type: z.literal('drop-table'), table: z.string().min(1) }),
  /** Takes back one earlier entry, which may itself be an undo. */
  z.object({ ...common, type: z.literal('undo'), entry: z.string().min(1) }),
]);
export type Entry = z.infer<typeof entrySchema>;
/** What a caller says; the log adds identity and time. */
export type Decision = Entry extends infer E
  ? E extends Entry
    ? Omit<E, 'id' | 'at' | 'why'> & { why?: string | null }
    : never
  : never;

/** A log as it is kept and exported. */
export const logSchema = z.object({
  format: z.literal('dig-first-log'),
  version: z.literal(LOG_VERSION),
  extract: z.string(),
  /** How the files were read that it was made on. */
  reading: stepsSchema.optional(),
  entries: z.array(entrySchema),
});
export type DigLog = z.infer<typeof logSchema>;

/** A log as it is saved, with how its extract was read. */
export const digLog = (
  extract: Pick<Received, 'name' | 'files' | 'marks' | 'wave'>,
  entries: readonly Entry[],
): DigLog => ({
  format: 'dig-first-log',
  version: LOG_VERSION,
  extract: extract.name,
  reading: stepsOf(extract),
  entries: [...entries],
});

/** A decision as an entry. @param id unique in its log @param at the time */
export function entryOf(decision: Decision, id: string, at: Date): Entry {
  return { ...decision, id, at: at.toISOString(), why: decision.why ?? null } as Entry;
}
