import { namesIdentifier } from '../vocabulary';
import { between, is, type Cue } from './cue';
import { formOf, type Seen } from './seen';
import { countsIn, levelAt, valuesIn } from '../level-list';
import { numberAt } from '../levels';

const ID_NAME = /(^|_)(serial|case(no|id)?|pid|hid|uuid)$|^(id|case|serial|seq|rec)(no|nr|num)?([_\d]|$)/i;
const ID_LABEL =
  /\b(identif\w+|serial number|case number|record number|unique|running number|reference number)\b/i;

const FEW_ROWS = 10;
/** Nearly all values differ. */
const NEARLY = 0.9;
const OWN = 0.98;
/** Units of several rows hold so few rows each that their number is that share of all rows. */
const UNITS = 0.2;
const SOME_ROWS = 30;
const LEAST_UNITS = 20;
const LEAST_STEPS = 30;
const STEP_SLACK = 1.2;
const LEAST_WIDTH = 4;
const LONG_WIDTH = 6;
const FEW_FORMS = 4;
const NEARLY_EVEN = 1.25;

const share = ({ distinct, rows }: Seen): number => distinct / rows;
const isNamed = ({ name, label }: Seen): boolean =>
  ID_NAME.test(name) || namesIdentifier(name) || ID_LABEL.test(label ?? '');
const numbered = (seen: Seen): boolean => seen.written.storage !== 'decimal';
/** Every row has its own value, or every row of each file; a few may repeat by mistake. */
const isOwn = (seen: Seen): boolean =>
  numbered(seen) && seen.rows >= FEW_ROWS && (share(seen) >= OWN || seen.uniqueInFiles === true);
const isWhole = ({ written }: Seen): boolean => written.storage === 'integer';
const valueAt = ({ valid }: Seen, i: number): number => numberAt(valid, i);
function isStepped({ valid }: Seen): boolean {
  if (valid.length < LEAST_STEPS) return false;
  const values = valuesIn(valid);
  const step = values[1] - values[0];
  return step > 1 && values.every((value, i) => i === 0 || value - values[i - 1] === step);
}
/** How many rows hold a value, on average and at most. */
const evenly = ({ valid, rows, distinct }: Seen): boolean =>
  countsIn(valid).every((count) => count <= (rows / distinct) * NEARLY_EVEN + 1);
const rowsEach = ({ rows, distinct }: Seen): string => (rows / distinct).toFixed(1);
const hasLetterAndDigit = (code: string): boolean => /\p{L}/u.test(code) && /\d/.test(code);

/** What tells rows, or units of several rows, from each other. */
export const IDENTITY_CUES: readonly Cue[] = [
  {
    id: 'named as identifier, nearly all differ',
    kinds: ['identifier'],
    holds: (seen) =>
      is(
        numbered(seen) &&
          seen.rows >= FEW_ROWS &&
          isNamed(seen) &&
          (share(seen) >= NEARLY || seen.uniqueInFiles === true),
      ),
    says: () => 'name or label says identifier',
  },
  {
    id: 'every value once',
    kinds: ['identifier', 'text', 'continuous', 'nominal'],
    holds: (seen) => is(isOwn(seen) && seen.distinct === seen.rows),
    says: () => 'every row has a value of its own',
  },
  {
    id: 'every value once in a file',
    kinds: ['identifier'],
    holds: (seen) => is(isOwn(seen) && seen.uniqueInFiles === true && seen.distinct < seen.rows),
    says: () => 'no value repeats within a file, as the units of a panel do not',
  },
  {
    id: 'nearly every value once',
    kinds: ['identifier', 'text', 'nominal'],
    holds: (seen) => is(numbered(seen) && seen.rows >= FEW_ROWS && share(seen) >= NEARLY && share(seen) < 1),
    says: ({ distinct, rows }) => `${distinct} of ${rows} values differ`,
  },
  {
    id: 'values run through',
    kinds: ['identifier', 'continuous', 'count'],
    holds: (seen) =>
      is(
        isOwn(seen) &&
          isWhole(seen) &&
          valueAt(seen, seen.distinct - 1) - valueAt(seen, 0) + 1 <= seen.distinct * STEP_SLACK,
      ),
    says: ({ valid }) =>
      `the values run through from ${levelAt(valid, 0).code} to ${levelAt(valid, valid.length - 1).code}`,
  },
  {
    id: 'rows counted off',
    kinds: ['identifier', 'continuous', 'count'],
    holds: (seen) =>
      is(
        isOwn(seen) &&
          isWhole(seen) &&
          (seen.sequence?.rising ?? 0) >= 0.99 &&
          valueAt(seen, seen.distinct - 1) - valueAt(seen, 0) + 1 <= seen.distinct * STEP_SLACK,
      ),
    says: () => 'its values count off the rows',
  },
  {
    id: 'values in steps',
    kinds: ['identifier', 'continuous'],
    holds: (seen) => is(isOwn(seen) && isWhole(seen) && isStepped(seen)),
    says: (seen) => `the values are counted off in steps of ${valueAt(seen, 1) - valueAt(seen, 0)}`,
  },
  {
    id: 'values rise with the rows',
    kinds: ['identifier', 'continuous'],
    holds: (seen) =>
      is(numbered(seen) && seen.rows >= SOME_ROWS && share(seen) >= NEARLY) *
      between(seen.sequence?.rising ?? 0, 0.9, 1),
    says: () => 'its values rise from row to row',
  },
  {
    id: 'first of all, every value once',
    kinds: ['identifier'],
    holds: (seen) => is(isOwn(seen) && seen.sequence?.first === true),
    says: () => 'it stands first, and hardly a value repeats',
  },
  {
    id: 'one form',
    kinds: ['identifier', 'text'],
    holds: (seen) =>
      is(
        numbered(seen) &&
          seen.rows >= FEW_ROWS &&
          share(seen) >= NEARLY &&
          levelAt(seen.valid, 0).code.length >= LEAST_WIDTH &&
          formsOf(seen) === 1,
      ),
    says: ({ valid }) => `all have the same form, such as ${levelAt(valid, 0).code}`,
  },
  {
    id: 'long numbers of one length',
    kinds: ['identifier', 'continuous', 'count'],
    holds: (seen) =>
      is(
        isWhole(seen) &&
          seen.rows >= FEW_ROWS &&
          share(seen) >= NEARLY &&
          levelAt(seen.valid, 0).code.length >= LONG_WIDTH &&
          levelAt(seen.valid, 0).code.length === levelAt(seen.valid, seen.distinct - 1).code.length,
      ),
    says: ({ valid }) =>
      `each has ${levelAt(valid, 0).code.length} digits, such as ${levelAt(valid, 0).code}`,
  },
  {
    id: 'few forms',
    kinds: ['identifier', 'text'],
    holds: (seen) =>
      is(
        seen.texts !== null &&
          seen.rows >= FEW_ROWS &&
          share(seen) >= NEARLY &&
          formsOf(seen) > 1 &&
          formsOf(seen) <= FEW_FORMS &&
          !levelAt(seen.valid, 0).code.includes(' '),
      ),
    says: ({ valid }) => `few forms, such as ${levelAt(valid, 0).code}`,
  },
  {
    id: 'codes of letters and digits, nearly all differ',
    kinds: ['identifier', 'text'],
    holds: (seen) =>
      seen.texts !== null && seen.rows >= FEW_ROWS && share(seen) >= NEARLY
        ? between(codeShare(seen), 0.5, 0.95)
        : 0,
    says: ({ valid }) => `short codes without a blank, such as ${levelAt(valid, valid.length >> 1).code}`,
  },
  {
    id: 'named as identifier, units of several rows',
    kinds: ['identifier', 'nominal'],
    holds: (seen) =>
      is(
        numbered(seen) &&
          seen.rows >= FEW_ROWS * 10 &&
          share(seen) >= UNITS &&
          share(seen) < NEARLY &&
          seen.uniqueInFiles !== true &&
          namesIdentifier(seen.name),
      ),
    says: (seen) =>
      `its name says identifier, and its ${seen.distinct} values stand in ${rowsEach(seen)} rows each: units that hold several rows`,
  },
  {
    id: 'named as identifier, values repeat',
    kinds: ['identifier', 'nominal', 'ordinal', 'continuous', 'count', 'text'],
    holds: (seen) =>
      is(
        numbered(seen) &&
          seen.rows >= SOME_ROWS &&
          share(seen) < UNITS &&
          seen.distinct > 2 &&
          seen.uniqueInFiles !== true &&
          namesIdentifier(seen.name),
      ),
    says: () => 'its name says identifier, and its values repeat: it names something else than the row',
  },
  {
    id: 'units counted off, a few rows each',
    kinds: ['identifier', 'continuous', 'nominal', 'count'],
    holds: (seen) =>
      is(
        isWhole(seen) &&
          seen.uniqueInFiles !== true &&
          seen.distinct >= LEAST_UNITS &&
          share(seen) < NEARLY &&
          share(seen) >= 0.03 &&
          valueAt(seen, seen.distinct - 1) - valueAt(seen, 0) + 1 <= seen.distinct * STEP_SLACK &&
          seen.sequence?.stretches === seen.distinct &&
          evenly(seen),
      ),
    says: (seen) =>
      `its ${seen.distinct} values are counted off, the ${rowsEach(seen)} rows of each together: units of several rows`,
  },
];

const formsOf = ({ texts, valid }: Seen): number =>
  texts?.forms ?? new Set(valid.slice(0, 2000).map(({ code }) => formOf(code))).size;
/** Share of texts that are short codes of capitals or digits, no word among them. */
function codeShare({ texts }: Seen): number {
  const sample = texts?.sample ?? [];
  const codes = sample.filter(
    (code) =>
      /^[\p{L}\d][\p{L}\d._/#-]{0,23}$/u.test(code) &&
      (hasLetterAndDigit(code) || /^\d+$/.test(code) || (/^[A-Z]+$/.test(code) && code.length <= 6)),
  );
  return codes.length / Math.max(1, sample.length);
}
