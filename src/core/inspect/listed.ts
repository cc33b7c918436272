import { allRows, either, rowsIn, type Bits } from '../extract/bits';
import { BETWEEN_PULSES, pulse } from '../extract/pulse';
import { isDateStorage, isNumericStorage } from '../extract/words';
import type { Coding } from '../extract/coding';
import type { Column } from '../extract/column';
import { byCodePoint, sortRows, type SortKey } from '../rows/sorting';
import type { Inspected } from './inspected';
import type { Inspector } from './inspect';
import { LevelArrays } from '../infer/level-list';

/** What rows are sorted by: a variable, up or down. */
export interface Sorting {
  variable: string;
  down: boolean;
}

/**
 * The rows of a set in the order wanted; in that of the file where none is.
 * @param within rows; all where it is `null` @returns zero-based
 */
export function ordered(inspector: Inspector, within: Bits | null, by: readonly Sorting[]): Uint32Array {
  const rows = rowsIn(within ?? allRows(inspector.extract.rows));
  const keys = by.flatMap(({ variable, down }): SortKey[] => {
    const found = inspector.wholly(variable);
    return found
      ? [{ coding: found.places.coding, ranks: ranksOf(found, inspector.isOrdered(variable)), down }]
      : [];
  });
  return keys.length ? sortRows(rows, keys) : rows;
}

/** Rank of each place: numbers by value, dates by time, ordered categories by their order, other text by code point. */
export function ranksOf(
  { kind, written: { storage }, places: { levels, size } }: Inspected,
  byPerson: boolean,
): Int32Array {
  const ranks = new Int32Array(size).fill(-1);
  const listed = LevelArrays.from(levels);
  const valid = Array.from({ length: listed.length }, (_, place) => place).filter((place) =>
    listed.isValid(place),
  );
  if (byPerson || kind === 'ordinal') {
    valid.forEach((place, rank) => (ranks[place] = rank));
    return ranks;
  }
  const valueOf = (place: number): number =>
    Number.isNaN(listed.values[place]) ? Infinity : listed.values[place];
  const measured = isNumericStorage(storage) || isDateStorage(storage);
  const compare = measured
    ? (a: number, b: number): number => valueOf(a) - valueOf(b)
    : (a: number, b: number): number => byCodePoint(listed.code(a), listed.code(b));
  const sorted = [...valid].sort(compare);
  let rank = -1;
  sorted.forEach((place, i) => {
    // What is equal stays in the order of the file.
    if (i === 0 || compare(sorted[i - 1], place) !== 0) rank++;
    ranks[place] = rank;
  });
  return ranks;
}

/**
 * Rows in which a cell of some variables holds a text, in what the file holds or in a label, whatever the case.
 * @returns bits of the whole extract
 */
export function rowsHolding(inspector: Inspector, variables: readonly string[], text: string): Bits {
  const { extract } = inspector;
  const sought = text.toLowerCase();
  let found: Bits = new Int32Array((extract.rows + 31) >>> 5);
  for (const name of variables) {
    const inspected = inspector.wholly(name);
    if (inspected) found = either(found, holdingIn(inspector, inspected, sought));
  }
  return found;
}

function holdingIn(inspector: Inspector, { name, position, places }: Inspected, sought: string): Bits {
  const { extract, received } = inspector;
  const { column } = extract.variables[position - 1];
  // A trial recode stands in no file.
  const { column: raw } = received.variables[position - 1] ?? extract.variables[position - 1];
  const bits: Bits = new Int32Array((extract.rows + 31) >>> 5);
  const levels = LevelArrays.from(places.levels);
  const labelled = Array.from(
    { length: levels.length },
    (_, place) => levels.label(place)?.toLowerCase().includes(sought) ?? false,
  );
  const mark = (row: number): void => void (bits[row >>> 5] |= 1 << (row & 31));
  const holds = (text: string): boolean => text.toLowerCase().includes(sought);
  // No number that can be written in one way alone holds any other sign.
  markWhere(raw, holds, /^[-.\d]+$/.test(sought) ? undefined : false, mark);
  if (labelled.some(Boolean)) markPlaces(places.coding, extract.rows, labelled, mark);
  // What a person wrote in place of a text, or in a row of their own, is looked for too.
  if (column !== raw)
    for (const row of [
      ...(inspector.corrected.get(name)?.keys() ?? []),
      ...Array.from({ length: extract.rows - received.rows }, (_, i) => received.rows + i),
    ])
      if (holds(column.text(row))) mark(row);
  return bits;
}

function markWhere(
  column: Column,
  is: (text: string) => boolean,
  numbers: false | undefined,
  mark: (row: number) => void,
): void {
  const at = column.lift(is, numbers);
  for (let row = 0; row < column.rows; row++) {
    if ((row & (BETWEEN_PULSES - 1)) === 0) pulse();
    if (at(row)) mark(row);
  }
}

function markPlaces(
  { codes, to }: Coding,
  rows: number,
  wanted: readonly boolean[],
  mark: (row: number) => void,
): void {
  const held = Array.from(to, (place) => place >= 0 && wanted[place]);
  for (let row = 0; row < rows; row++) if (held[codes[row]]) mark(row);
}
