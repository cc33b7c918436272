import { regrouped } from '../extract/coding';
import { InputError } from '../extract/problem';
import { isCategorical, isMeasure } from '../extract/words';
import { levelAt, type Level } from '../infer/level-list';
import { validOf } from '../infer/levels';
import { binned, roundBins, type Bins } from '../recode/bins';
import { byFile, type Categories, type Numbers } from '../rows/records';
import type { CodeTold } from './cross-document';
import { categoriesOf, numbersOf, weightOf } from './as-counted';
import type { Inspected } from './inspected';
import type { Inspector } from './inspect';

/** What stands down, across or within: the codes that rows there hold, in the variable's own order, and which of them each row holds. */
export interface Side {
  variable: string;
  label: string | null;
  codes: CodeTold[];
  /** Bins that a measure was put into for this table alone. */
  bins: Bins | null;
  categories: Categories;
}

/** How a variable is made a side of a table. */
export interface AsSide {
  /** Whether states without a valid answer are codes too. */
  withMissing: boolean;
  /** Whether a measure of very many values is put into bins of a round size; else it is refused. */
  binned: boolean;
  /** Bins that a person wants, by variable. */
  bins?: Readonly<Record<string, Bins>>;
}

/** More distinct values than this make no table of what is no category. */
export const MOST_DISTINCT = 60;

/** A variable over all rows that are there: a sieve makes no other codes. @throws InputError where there is none of that name */
export function needed(inspector: Inspector, name: string): Inspected {
  const found = inspector.wholly(name);
  if (!found) throw new InputError({ file: name, says: 'there is no variable of this name' });
  return found;
}

/** @throws InputError for what can stand in no table, with the way on */
export function sideOf(inspector: Inspector, name: string, how: AsSide): Side {
  const inspected = needed(inspector, name);
  const { kind, counts, places, label } = inspected;
  const asked = how.bins?.[inspected.name];
  const many = counts.distinct > MOST_DISTINCT && !isCategorical(kind);
  if (many && !asked && !(how.binned && isMeasure(kind)))
    throw new InputError({
      file: name,
      says: `it is ${kind} with ${counts.distinct} distinct values, more than ${MOST_DISTINCT} lines; put it into bands first, as a trial recode`,
    });
  const bins = isMeasure(kind)
    ? (asked ?? (many ? roundBins(validOf(inspected.levels).values) : null))
    : null;
  const codes: CodeTold[] = [];
  const into = new Int32Array(places.size).fill(-1);
  if (bins) binsInto(inspected, bins, codes, into);
  else levelsInto(inspected, ({ standing }) => standing === 'valid', codes, into);
  if (how.withMissing) statesInto(inspected, codes, into);
  return {
    variable: inspected.name,
    label,
    codes,
    bins,
    categories: categoriesOf(inspected.name, places, into, codes.length),
  };
}

/** Levels that rows there hold. */
function levelsInto(
  { base, levels }: Inspected,
  wanted: (level: Level) => boolean,
  codes: CodeTold[],
  into: Int32Array,
): void {
  const there = new Set(levels.levels.map(({ code }) => code));
  base.levels.forEach((level, place) => {
    const { code, label, standing } = level;
    if (!wanted(level) || !there.has(code)) return;
    into[place] = codes.length;
    codes.push({
      code,
      label,
      state: standing === 'valid' ? 'valid' : standing === 'missing' ? 'missing' : 'notAsked',
    });
  });
}

function binsInto({ base, levels }: Inspected, bins: Bins, codes: CodeTold[], into: Int32Array): void {
  const there = new Set(levels.levels.map(({ code }) => code));
  const found = binned(bins, base.levels);
  const held = new Map<string, { label: string; low: number; places: number[] }>();
  for (const [place, { code, label }] of found) {
    const level = levelAt(base.levels, place);
    if (!there.has(level.code)) continue;
    const bin = held.get(code);
    if (bin) {
      bin.places.push(place);
      bin.low = Math.min(bin.low, level.value ?? 0);
    } else held.set(code, { label, low: level.value ?? 0, places: [place] });
  }
  for (const [code, { label, places }] of [...held].sort(([, a], [, b]) => a.low - b.low)) {
    for (const place of places) into[place] = codes.length;
    codes.push({ code, label, state: 'valid' });
  }
}

/** Missing and not-asked codes, and behind them the states that have no code of their own and are told by their state. */
function statesInto(inspected: Inspected, codes: CodeTold[], into: Int32Array): void {
  const { base, levels, counts, places } = inspected;
  levelsInto(inspected, ({ standing }) => standing === 'missing' || standing === 'not-asked', codes, into);
  const state = (name: 'notAsked' | 'blank' | 'unreadable', rows: number, at: readonly number[]): void => {
    if (rows === 0) return;
    for (const place of at) into[place] = codes.length;
    codes.push({ code: name, label: null, state: name });
  };
  state('notAsked', levels.notAskedBlank ?? 0, [places.notAsked]);
  state('blank', counts.blank, [places.blank]);
  state(
    'unreadable',
    counts.unreadable,
    base.levels.flatMap(({ standing }, place) => (standing === 'unreadable' ? [place] : [])),
  );
}

/** The files of an extract as a side, by their waves or names. */
export function sideOfFiles({ extract: { files } }: Inspector): Side {
  return {
    variable: 'file',
    label: null,
    codes: files.map(({ name, wave }) => ({ code: wave ?? name, label: null, state: 'valid' })),
    bins: null,
    categories: byFile(files.length),
  };
}

/** Only the first of the codes of a side; rows with another are in none. */
export function firstOf(side: Side, most: number): Side {
  if (side.codes.length <= most) return side;
  const { categories } = side;
  return {
    ...side,
    codes: side.codes.slice(0, most),
    categories: {
      variable: categories.variable,
      size: most,
      of: (text) => (categories.of(text) < most ? categories.of(text) : -1),
      ...(categories.coding
        ? {
            coding: regrouped(
              categories.coding,
              Array.from({ length: categories.size }, (_, i) => (i < most ? i : -1)),
              most,
            ),
          }
        : {}),
    },
  };
}

/** The weight that is asked for, else the one in force. @throws InputError for what holds no numbers */
export function weightIn(inspector: Inspector, name: string | null): Numbers | null {
  const weight = name ?? inspector.weighting?.inspected.name ?? null;
  if (weight === null) return null;
  const inspected = needed(inspector, weight);
  if (validOf(inspected.levels).values.length === 0)
    throw new InputError({ file: weight, says: 'it holds no numbers, and a weight is one' });
  return weightOf(inspected);
}

/** What a table summarises. @throws InputError for what is no measure */
export function measureIn(inspector: Inspector, name: string): Numbers {
  const measure = needed(inspector, name);
  if (!isMeasure(measure.kind))
    throw new InputError({
      file: name,
      says: `it is ${measure.kind}, and only counts and continuous ones are summarised; say its kind first`,
    });
  return numbersOf(measure);
}
