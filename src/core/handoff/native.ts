import type { CodebookEntry } from '../extract/extract';
import { isNumericStorage } from '../extract/words';
import { isoText, readDate } from '../infer/dates';
import type { Written } from '../infer/storage';
import { isBlank } from '../read/looks';
import { PLAIN, plainNumberText, readsAsBareNumber } from '../read/number';
import { MomentsSpelt, numberSpelling, type Spelling } from '../extract/spelling';
import type { Leaving, LeavingVariable } from './leaving';

/** What the cells of a variable are, in a form that has types of its own. */
export type NativeType = 'integer' | 'number' | 'boolean' | 'day' | 'instant' | 'time' | 'text';

/** A variable as a form with types of its own writes it. */
export interface Native {
  type: NativeType;
  /** Whether every cell that goes out and holds something is of the type; those apart that stand for no answer. */
  whole: boolean;
  wholeButMissing: boolean;
  /** Whether instants name a zone; then they are in UTC. */
  zoned: boolean;
  /** Whether some whole number is beyond those that a double tells apart. */
  beyond: boolean;
  /** Whether every cell is a number as programs write it. */
  bare: boolean;
  /** How cells are spelt, where that is another way than programs would write their values. */
  spelling: Spelling | null;
  /**
   * What the text of a cell is, as programs write it: a number with a point, `true` or `false`, ISO 8601. Empty for a blank
   * cell; `null` where the cell is not of the type.
   */
  plain(text: string): string | null;
}

const made = new WeakMap<Leaving, Native[]>();

/** What the variables of a handoff are, each told from all cells that go out. */
export function nativesOf(leaving: Leaving): readonly Native[] {
  let natives = made.get(leaving);
  if (!natives) {
    const rows = Uint32Array.from(leaving.rows.each());
    made.set(leaving, (natives = leaving.variables.map((variable) => nativeOf(variable, rows))));
  }
  return natives;
}

/** Whether a spelling is how programs write values anyway. */
function isUsual(spelling: Spelling): boolean {
  if (spelling.as === 'boolean') return spelling.true === 'true';
  if (spelling.as === 'moment')
    return (
      spelling.fraction === null &&
      /^(yyyy-MM-dd)?('T'HH:mm:ss)?$/.test(spelling.pattern) &&
      (spelling.zone ?? 'Z') === 'Z'
    );
  const { decimal, thousands, before, after, minus, sign } = spelling;
  return decimal === '.' && !thousands && !before && !after && minus === 'front' && sign === '-';
}

/** What is known of a variable, with how its cells are spelt where a form keeps their values alone. */
export const carriedWith = (entry: CodebookEntry, { spelling }: Native): CodebookEntry =>
  spelling && !isUsual(spelling) ? { ...entry, handed: { ...entry.handed, spelling } } : entry;

/** Texts that the spelling of numbers is told from. */
const TOLD_FROM = 1000;

function nativeOf(variable: LeavingVariable, rows: Uint32Array): Native {
  const { storage, entry, inspected } = variable;
  const missing = missingOf(entry);
  const reader = readerOf(inspected.written, storage);
  /** Each text that goes out is taken once, as far as the column knows its texts. */
  const seen = variable.lift((text) => ({ text, taken: false }));
  const native: Native = {
    type: reader.type,
    whole: true,
    wholeButMissing: true,
    zoned: false,
    beyond: false,
    bare: true,
    spelling: null,
    plain: reader.plain,
  };
  let filled = false;
  for (const row of rows) {
    const one = seen(row);
    if (one.taken) continue;
    one.taken = true;
    if (isBlank(one.text)) {
      if (one.text !== '') native.bare = false;
      continue;
    }
    const isMissing = missing.has(one.text.trim());
    const plain = reader.take(one.text);
    if (plain === null) {
      native.whole = false;
      if (!isMissing) native.wholeButMissing = native.bare = false;
      continue;
    }
    filled = true;
    native.beyond ||= reader.type === 'integer' && !Number.isSafeInteger(Number(plain));
    native.bare &&= readsAsBareNumber(one.text) && one.text.trim() === one.text;
  }
  if (!filled) return { ...native, ...AS_TEXT };
  // A text is true or false only where all are.
  if (reader.type === 'boolean' && !native.wholeButMissing) return { ...native, ...AS_TEXT };
  const spelling = reader.spelling();
  if (reader.type !== 'integer' && reader.type !== 'number')
    return {
      ...native,
      spelling,
      bare: false,
      zoned: spelling?.as === 'moment' && spelling.zone !== null,
    };
  return { ...native, spelling: native.bare ? null : spelling };
}

const missingOf = ({ missingTexts, categories }: CodebookEntry): ReadonlySet<string> =>
  new Set([...missingTexts, ...categories.flatMap(({ code, missing }) => (missing ? [code.trim()] : []))]);

/** Whether a test holds of every cell of a variable that goes out, holds something, and does not stand for no answer. */
export function everyCell(
  { variables, rows }: Leaving,
  at: number,
  test: (text: string) => boolean,
): boolean {
  const missing = missingOf(variables[at].entry);
  const holds = variables[at].lift((text) => text === '' || missing.has(text.trim()) || test(text));
  for (const row of rows.each()) if (!holds(row)) return false;
  return true;
}

const AS_TEXT = {
  type: 'text' as const,
  whole: true,
  wholeButMissing: true,
  bare: false,
  spelling: null,
  plain: (text: string): string => text,
};

interface Reader {
  type: NativeType;
  plain(text: string): string | null;
  /** The same of a text that goes out, which the spelling is then told from. */
  take(text: string): string | null;
  spelling(): Spelling | null;
}

function readerOf(written: Written, storage: LeavingVariable['storage']): Reader {
  if (isNumericStorage(storage)) return numberReader(written, storage === 'integer' ? 'integer' : 'number');
  if (storage === 'date' || storage === 'datetime' || storage === 'time')
    return momentReader(written, storage);
  return booleanReader();
}

function numberReader({ numberForm }: Written, type: 'integer' | 'number'): Reader {
  // A point that a file implies stands in what goes out.
  const form = numberForm.implied ? PLAIN : numberForm;
  const some: string[] = [];
  const plain = (text: string): string | null => (isBlank(text) ? '' : plainNumberText(text, form));
  return {
    type,
    plain,
    take: (text) => {
      const found = plain(text);
      if (found !== null && some.length < TOLD_FROM) some.push(text);
      return found;
    },
    spelling: () => numberSpelling(some, form),
  };
}

/** The pairs of words in which programs write truth. */
const TRUTHS = [
  ['true', 'false'],
  ['TRUE', 'FALSE'],
  ['True', 'False'],
] as const;

function booleanReader(): Reader {
  let pair: (typeof TRUTHS)[number] | null = null;
  const plain = (text: string): string | null =>
    isBlank(text) ? '' : text === pair?.[0] ? 'true' : text === pair?.[1] ? 'false' : null;
  return {
    type: 'boolean',
    plain,
    take: (text) => {
      pair ??= TRUTHS.find((words) => (words as readonly string[]).includes(text)) ?? null;
      return plain(text);
    },
    spelling: () => pair && { as: 'boolean', true: pair[0], false: pair[1] },
  };
}

function momentReader(written: Written, storage: 'date' | 'datetime' | 'time'): Reader {
  const { dateForm, utc } = written;
  const order = dateForm === 'mdy' ? 'mdy' : 'dmy';
  const spelt = new MomentsSpelt(order);
  // A month is no day, and times of several zones are no one moment of their own spelling.
  const none = dateForm === 'month' || utc;
  const read = (text: string, how: MomentsSpelt): string | null => {
    if (isBlank(text)) return '';
    const date = none ? null : readDate(text, dateForm);
    if (date?.storage !== storage) return null;
    const exact = how.add(text.trim());
    if (exact !== null) return exact;
    // Spelt otherwise than the rest: its day or second is what counts.
    return /[Zz]$|[+-]\d{2}:?\d{2}$|\d[.,]\d+\s*([AaPp]|$)/.test(text.trim()) && storage !== 'date'
      ? null
      : isoText(date.value, storage);
  };
  return {
    type: storage === 'date' ? 'day' : storage === 'time' ? 'time' : 'instant',
    plain: (text) => read(text, new MomentsSpelt(order)),
    take: (text) => read(text, spelt),
    spelling: () => spelt.spelling,
  };
}
