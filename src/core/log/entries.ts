import { z } from 'zod';
import { rowText, type RowName } from '../extract/row-names';
import { KINDS, REASONS, ROLES } from '../extract/words';

/** Version of the log's format; a reader of a later version migrates earlier entries. */
export const LOG_VERSION = 3;

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
});

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
  entries: z.array(entrySchema),
});
export type DigLog = z.infer<typeof logSchema>;

/** A decision as an entry. @param id unique in its log @param at the time */
export function entryOf(decision: Decision, id: string, at: Date): Entry {
  return { ...decision, id, at: at.toISOString(), why: decision.why ?? null } as Entry;
}

const list = (items: readonly string[]): string =>
  items.length > 4 ? `${items.slice(0, 3).join(', ')} and ${items.length - 3} more` : items.join(', ');

const number = (variables: readonly string[]): string =>
  variables.length === 1 ? variables[0] : `${variables.length} variables`;

/** An entry in one plain sentence. */
export function entryText(entry: Entry, setName: (id: string) => string = (id) => id): string {
  switch (entry.type) {
    case 'confirm-kind':
      return entry.kinds.length === 1
        ? `${entry.kinds[0].variable} is ${entry.kinds[0].kind}`
        : `kinds of ${entry.kinds.length} variables confirmed: ${list(entry.kinds.map(({ variable, kind }) => `${variable} ${kind}`))}`;
    case 'declare-missing':
      return `${list(entry.codes.map(({ code, reason }) => `${code} (${reason})`))} declared missing in ${list(entry.variables)}`;
    case 'label-codes':
      return `${list(entry.labels.map(({ code, label }) => `${code} “${label}”`))} labelled in ${list(entry.variables)}`;
    case 'keep-valid':
      return entry.codes.length
        ? `${list(entry.codes)} kept as valid in ${list(entry.variables)}`
        : `${entry.rule} left as it is${entry.variables.length ? ` in ${list(entry.variables)}` : ''}`;
    case 'merge-codes':
      return `${list(entry.codes.map((code) => `“${code}”`))} taken for “${entry.into}” in ${list(entry.variables)}`;
    case 'set-aside':
      return `${entry.rows.length} ${entry.rows.length === 1 ? 'row' : 'rows'} set aside (${list(entry.rows.map(rowText))})`;
    case 'confirm-role':
      return entry.roles.length === 1
        ? `${entry.roles[0].variable} has the role ${entry.roles[0].role}`
        : `roles of ${entry.roles.length} variables confirmed`;
    case 'accept-universe':
      return `${entry.variable} not asked where ${[...(entry.steps ?? []).map(({ by, codes, asked }) => `${by} is ${asked ? 'not ' : ''}${list(codes)}${asked ? ' and' : ' or'}`), `${entry.by} is ${list(entry.shut)}`].join(' ')}`;
    case 'ask-archive':
      return `asked of the archive${entry.variables.length ? ` about ${list(entry.variables)}` : ''}: ${entry.question}`;
    case 'sign-off':
      return `${list(entry.variables)} ${entry.done ? 'signed off' : 'no longer signed off'}`;
    case 'note':
      return entry.text
        ? `note on ${entry.variable}: “${entry.text.length > 60 ? `${entry.text.slice(0, 57)}…` : entry.text}”`
        : `note on ${entry.variable} removed`;
    case 'rename':
      return `${entry.variable} ${[entry.name !== null && `is called ${entry.name}`, entry.label !== null && `is labelled “${entry.label}”`].filter(Boolean).join(' and ') || 'has the archive’s own name and label again'}`;
    case 'order-codes':
      return `codes of ${list(entry.variables)} ordered: ${list(entry.codes)}`;
    case 'weigh':
      return entry.by === null ? 'no weight in force' : `weighted by ${entry.by}`;
    case 'make-set':
      return `set “${entry.name}” made of ${number(entry.variables)}`;
    case 'make-sets':
      return `${entry.sets.length === 1 ? 'a set' : `${entry.sets.length} sets`} made: ${list(entry.sets.map(({ name }) => name))}`;
    case 'rename-set':
      return `set “${setName(entry.set)}” called “${entry.name}”`;
    case 'add-to-set':
      return `${list(entry.variables)} put into “${setName(entry.set)}”`;
    case 'take-from-set':
      return `${list(entry.variables)} taken out of “${setName(entry.set)}”`;
    case 'nest-set':
      return entry.within === null
        ? `set “${setName(entry.set)}” stands by itself`
        : `set “${setName(entry.set)}” is part of “${setName(entry.within)}”`;
    case 'merge-sets':
      return `${list(entry.sets.filter((id) => id !== entry.into).map((id) => `“${setName(id)}”`))} merged into “${setName(entry.into)}”`;
    case 'split-set':
      return `${number(entry.variables)} of “${setName(entry.from)}” made the set “${entry.name}”`;
    case 'send-away':
      return `proposed set “${entry.name}” sent away`;
    case 'view-always':
      return entry.on
        ? 'identifier, wave, weight and design variables always in view'
        : 'identifier, wave, weight and design variables in view only with their sets';
    case 'drop-set':
      return `set “${setName(entry.set)}” removed`;
    case 'view-sets':
      return entry.sets.length ? `in view: ${list(entry.sets.map(setName))}` : 'all variables in view';
    case 'undo':
      return 'taken back';
  }
}
