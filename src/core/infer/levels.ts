import { BETWEEN_PULSES, pulse } from '../extract/pulse';
import type { CodebookEntry, CodeRange } from '../extract/extract';
import { isNumericStorage, type Reason } from '../extract/words';
import { isBlank } from '../read/looks';
import { PLAIN, readNumber, type NumberForm } from '../read/number';
import type { Tally } from '../tally/tally';
import { readDate } from './dates';
import { reasonOfLabel } from '../codebook/missing-words';
import type { Written } from './storage';

/** What a cell's text is to the analysis. Every text is exactly one of these. */
export type Standing = 'blank' | 'unreadable' | 'missing' | 'not-asked' | 'valid';

/** A code that stands for no answer, with who says so. */
export interface DeclaredMissing {
  code: string;
  label: string | null;
  reason: Reason;
  declaredBy: 'codebook' | 'ruling';
}

/** One value of a variable: all its spellings, and the rows that hold it. */
export interface Level {
  /** Raw text of the most frequent spelling. */
  code: string;
  /** All spellings, the most frequent first, where there are several; else empty. */
  spellings: readonly string[];
  /** Place of `code` among the texts that were tallied, where it is known. */
  at?: number;
  /** The number, the day, or the second; `null` for words. */
  value: number | null;
  label: string | null;
  count: number;
  standing: Exclude<Standing, 'blank'>;
  reason: Reason | null;
  declaredBy: 'codebook' | 'ruling' | null;
}

/** The levels of a variable in value order, and the number of blank cells. Levels and blanks add up to all rows. */
export interface Levels {
  rows: number;
  blank: number;
  /** Blank cells of rows that were not asked, by a universe that a person accepted; they are not among `blank`. */
  notAskedBlank?: number;
  levels: Level[];
}

/** What is asked of valid levels again and again, worked out once. */
export interface Valid {
  levels: readonly Level[];
  /** All other levels: missing, not asked, unreadable. */
  others: readonly Level[];
  /** Rows that hold the valid ones. */
  rows: number;
  /** The numbers among their values, ascending, and the rows of each. */
  values: Float64Array;
  counts: Float64Array;
  /** False where a person gave the codes another order than that of their numbers. */
  ascending: boolean;
}
const valids = new WeakMap<Levels, Valid>();

/** The valid levels, in value order. */
export function validOf(of: Levels): Valid {
  const known = valids.get(of);
  if (known) return known;
  const others = of.levels.filter(({ standing }) => standing !== 'valid');
  const levels = others.length === 0 ? of.levels : of.levels.filter(({ standing }) => standing === 'valid');
  const values = new Float64Array(levels.length);
  const counts = new Float64Array(levels.length);
  let [n, rows] = [0, 0];
  let ascending = true;
  for (const { value, count } of levels) {
    rows += count;
    if (value === null) continue;
    if (n > 0 && value < values[n - 1]) ascending = false;
    values[n] = value;
    counts[n++] = count;
  }
  const made = {
    levels,
    others,
    rows,
    values: values.subarray(0, n),
    counts: counts.subarray(0, n),
    ascending,
  };
  valids.set(of, made);
  return made;
}

const sums = new WeakMap<readonly Level[], number>();
/** Lists shorter than this are added up each time. */
const SHORT = 256;

/** Rows that hold one of the levels. Lists of levels are not changed once they are made. */
export function rowsOf(levels: readonly Level[]): number {
  const known = levels.length < SHORT ? undefined : sums.get(levels);
  if (known !== undefined) return known;
  let sum = 0;
  for (const { count } of levels) sum += count;
  if (levels.length >= SHORT) sums.set(levels, sum);
  return sum;
}
/** The number of a level that is one. */
export const numberOf = (level: Level): number => level.value as number;

const inside = (value: number, { min, max }: CodeRange): boolean =>
  (min !== null || max !== null) && (min === null || value >= min) && (max === null || value <= max);

/**
 * Finds what a codebook entry and the rulings declare about a text. Codes meet by text, or by number where both are
 * numbers: the codebook's `9` is the file's `9.0`. A ruling comes before the codebook.
 */
export class Declarations {
  private readonly byText = new Map<string, DeclaredMissing>();
  private readonly byNumber = new Map<number, DeclaredMissing>();
  private readonly labelByText = new Map<string, string>();
  private readonly labelByNumber = new Map<number, string>();

  /** @param form how the data write numbers; the codebook writes them plainly, or as the data do */
  constructor(
    private readonly entry: CodebookEntry | null,
    ruled: readonly { code: string; reason: Reason }[] = [],
    private readonly form: NumberForm = PLAIN,
  ) {
    for (const text of entry?.missingTexts ?? [])
      this.declare({
        code: text,
        label: null,
        reason: reasonOfLabel(text) ?? 'other',
        declaredBy: 'codebook',
      });
    for (const { code, label, missing, reason } of entry?.categories ?? []) {
      const number = this.documented(code);
      if (label !== null) {
        this.labelByText.set(code.trim(), label);
        if (number !== null) this.labelByNumber.set(number, label);
      }
      if (missing) this.declare({ code, label, reason: reason ?? 'other', declaredBy: 'codebook' });
    }
    for (const { code, reason } of ruled)
      this.declare({ code, label: this.label(code), reason, declaredBy: 'ruling' });
  }

  private documented(code: string): number | null {
    return readNumber(code) ?? readNumber(code, this.form);
  }

  /** Whether nothing is declared or labelled at all. */
  get none(): boolean {
    return this.byText.size === 0 && this.labelByText.size === 0 && !this.entry?.missingRanges.length;
  }

  /** Marks a level with its label and, if its code is declared missing, with that. */
  mark(level: Level): void {
    level.label = this.label(level.code);
    const declared = this.missing(level.code);
    if (!declared) return;
    level.standing = declared.reason === 'not-asked' ? 'not-asked' : 'missing';
    level.reason = declared.reason;
    level.declaredBy = declared.declaredBy;
  }

  private declare(declared: DeclaredMissing): void {
    this.byText.set(declared.code.trim(), declared);
    const number =
      declared.declaredBy === 'ruling'
        ? readNumber(declared.code, this.form)
        : this.documented(declared.code);
    if (number !== null) this.byNumber.set(number, declared);
  }

  missing(text: string): DeclaredMissing | null {
    const bare = text.trim();
    const number = readNumber(bare, this.form);
    const declared = this.byText.get(bare) ?? (number === null ? undefined : this.byNumber.get(number));
    if (declared) return declared;
    if (number !== null && this.entry?.missingRanges.some((range) => inside(number, range))) {
      return { code: bare, label: this.label(bare), reason: 'other', declaredBy: 'codebook' };
    }
    return null;
  }

  label(text: string): string | null {
    const bare = text.trim();
    const number = readNumber(bare, this.form);
    return (
      this.labelByText.get(bare) ?? (number === null ? undefined : this.labelByNumber.get(number)) ?? null
    );
  }
}

/** Reads each distinct text of a tally once and gathers what has the same value. */
export function levelsOf(tally: Tally, written: Written, declarations: Declarations): Levels {
  const { storage } = written;
  const numeric = isNumericStorage(storage);
  const { texts, counts } = tally;
  const levelAt = (i: number, value: number | null): Level => ({
    code: texts[i],
    at: i,
    spellings: NO_OTHERS,
    value,
    label: null,
    count: counts[i],
    standing: value !== null || storage === 'text' ? 'valid' : 'unreadable',
    reason: null,
    declaredBy: null,
  });
  const numbers = new Float64Array(numeric ? texts.length : 0);
  const places = new Uint32Array(numbers.length);
  let merging = 0;
  const byText: Level[] = [];
  let blank = 0;
  for (let i = 0; i < texts.length; i++) {
    if ((i & (BETWEEN_PULSES - 1)) === 0) pulse();
    if (isBlank(texts[i])) {
      blank += counts[i];
      continue;
    }
    const value = valueOf(texts[i], written);
    // Whole numbers too large for a double stay apart by their text, and so do several ways to write one day.
    if (numeric && value !== null && Math.abs(value) <= Number.MAX_SAFE_INTEGER) {
      numbers[merging] = value;
      places[merging++] = i;
    } else byText.push(levelAt(i, value));
  }
  const levels = inValueOrder(numberLevels(numbers.subarray(0, merging), places, tally, levelAt), byText);
  if (!declarations.none) for (const level of levels) declarations.mark(level);
  return { rows: tally.rows, blank, levels };
}

/** Levels of numbers, ascending; what has the same value is one, its spellings the most frequent first. */
function numberLevels(
  numbers: Float64Array,
  places: Uint32Array,
  { texts, counts }: Tally,
  levelAt: (i: number, value: number) => Level,
): Level[] {
  const placeOf = placing(numbers);
  const found = new Array<Level | undefined>(placeOf.places).fill(undefined);
  const respelt = new Map<Level, [string, number][]>();
  for (let n = 0; n < numbers.length; n++) {
    const rank = placeOf.of(numbers[n]);
    const i = places[n];
    const known = found[rank];
    if (!known) {
      found[rank] = levelAt(i, numbers[n]);
      continue;
    }
    const spellings = respelt.get(known) ?? [[known.code, known.count]];
    spellings.push([texts[i], counts[i]]);
    respelt.set(known, spellings);
    known.count += counts[i];
  }
  for (const [level, spellings] of respelt) {
    level.spellings = spellings.sort((a, b) => b[1] - a[1]).map(([text]) => text);
    level.code = level.spellings[0];
  }
  return respelt.size === 0 && placeOf.places === numbers.length
    ? (found as Level[])
    : found.filter((level) => level !== undefined);
}

/** Whole numbers over a range of so many times their number have a place each; others are sought. */
const DENSE = 4;
/** Places in ascending order for numbers, the same for the same number; some may stay empty. */
function placing(numbers: Float64Array): { places: number; of: (value: number) => number } {
  let [low, high, whole] = [Infinity, -Infinity, true];
  for (let i = 0; i < numbers.length && whole; i++) {
    const value = numbers[i];
    whole = Number.isInteger(value);
    if (value < low) low = value;
    if (value > high) high = value;
  }
  if (numbers.length > 0 && whole && high - low < numbers.length * DENSE)
    return { places: high - low + 1, of: (value) => value - low };
  const sorted = numbers.slice().sort();
  return { places: sorted.length, of: (value) => rankOf(sorted, value) };
}

/** First place of an ascending array whose value is not below the one sought. */
export function rankOf(sorted: Float64Array, sought: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle] < sought) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Where a level has but one spelling. */
export const NO_OTHERS: readonly string[] = [];

/** Every raw text of a level. */
export const spellingsOf = (level: Level): readonly string[] =>
  level.spellings.length ? level.spellings : [level.code];

/** Values ascending, then texts in code unit order. @param numbers ascending */
export function inValueOrder(numbers: Level[], byText: Level[]): Level[] {
  if (byText.length === 0) return numbers;
  const dated = byText.filter(({ value }) => value !== null);
  let compared = 0;
  const words = byText
    .filter(({ value }) => value === null)
    .sort((a, b) => {
      if ((++compared & (BETWEEN_PULSES - 1)) === 0) pulse();
      return a.code < b.code ? -1 : 1;
    });
  const ordered =
    dated.length === 0
      ? numbers
      : [...numbers, ...dated].sort(
          (a, b) => (a.value as number) - (b.value as number) || (a.code < b.code ? -1 : 1),
        );
  return [...ordered, ...words];
}

/** The number, day or second that a text stands for; `null` where it stands for none, and for words. */
export function valueOf(text: string, { storage, dateForm, numberForm, utc }: Written): number | null {
  if (isNumericStorage(storage)) return readNumber(text, numberForm);
  if (storage === 'text' || storage === 'empty') return null;
  const date = readDate(text, dateForm, utc);
  if (!date) return null;
  if (date.storage === storage) return date.value;
  // A date among dates with times is its midnight; anything else is another kind of thing.
  return storage === 'datetime' && date.storage === 'date' ? date.value * 86400 : null;
}

/** What the counts of a variable add up from: all = blank + unreadable + missing + notAsked + valid. */
export interface Counts {
  all: number;
  blank: number;
  unreadable: number;
  missing: number;
  notAsked: number;
  valid: number;
  /** Distinct valid values. */
  distinct: number;
}

export function countsOf({ rows, blank, notAskedBlank = 0, levels }: Levels): Counts {
  const counts: Counts = {
    all: rows,
    blank,
    unreadable: 0,
    missing: 0,
    notAsked: notAskedBlank,
    valid: 0,
    distinct: 0,
  };
  for (const { standing, count } of levels) {
    if (standing === 'unreadable') counts.unreadable += count;
    else if (standing === 'missing') counts.missing += count;
    else if (standing === 'not-asked') counts.notAsked += count;
    else {
      counts.valid += count;
      counts.distinct++;
    }
  }
  return counts;
}
