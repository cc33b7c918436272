import { has, type Bits } from '../extract/bits';
import type { Column } from '../extract/column';
import { BETWEEN_PULSES, pulse } from '../extract/pulse';

/**
 * A column's distinct raw texts with the number of rows that hold each. Tallies of parts add up to the tally of the
 * whole, whatever the parts: files, chunks, subsets of rows. Texts stand in the order in which they first appear.
 */
export interface Tally {
  texts: readonly string[];
  /** Rows per text, same order. */
  counts: Float64Array;
  rows: number;
}

/** More different texts than this take more memory to be told apart than a browser gives; each costs a few hundred bytes. */
const MOST_DISTINCT = 4_000_000;

/** Thrown where a column holds more different texts than can be counted. */
export class TooManyDistinct extends Error {
  constructor() {
    super(
      `it holds more than ${MOST_DISTINCT / 1_000_000} million different values, more than can be told apart in memory; read the files without it, or only their first rows`,
    );
    this.name = 'TooManyDistinct';
  }
}

/** The tally of a column, from zero-based row `from` up to but not including `to`. @throws TooManyDistinct */
export function tallyColumn(column: Column, from = 0, to = column.rows): Tally {
  if (column.form === 'packed') {
    return tallyTexts(
      (function* () {
        for (let row = from; row < to; row++) yield column.text(row);
      })(),
    );
  }
  const all = new Float64Array(column.texts.length);
  const { codes } = column;
  for (let row = from; row < to; row++) all[codes[row]]++;
  return { ...present(column.texts, all), rows: to - from };
}

/** The tally of the rows of a column that count, from its codes: those that do not are never looked at one by one. */
export function tallyWithin(column: Column, within: Bits): Tally {
  if (column.form === 'packed')
    return tallyTexts(
      (function* () {
        for (let row = 0; row < column.rows; row++) if (has(within, row)) yield column.text(row);
      })(),
    );
  const { codes, texts } = column;
  const all = new Float64Array(texts.length);
  let rows = 0;
  for (let row = 0; row < codes.length; row++) {
    if (!has(within, row)) continue;
    all[codes[row]]++;
    rows++;
  }
  return { ...present(texts, all), rows };
}

/** Texts that any row holds, with their counts. */
function present(texts: readonly string[], all: Float64Array): Pick<Tally, 'texts' | 'counts'> {
  if (all.every((count) => count > 0)) return { texts, counts: all };
  const held = texts.map((_, code) => code).filter((code) => all[code] > 0);
  return { texts: held.map((code) => texts[code]), counts: Float64Array.from(held, (code) => all[code]) };
}

/** The tally of loose texts. @throws TooManyDistinct */
export function tallyTexts(texts: Iterable<string>): Tally {
  const countOf = new Map<string, number>();
  let rows = 0;
  for (const text of texts) {
    if ((rows & (BETWEEN_PULSES - 1)) === 0) {
      pulse();
      if (countOf.size > MOST_DISTINCT) throw new TooManyDistinct();
    }
    countOf.set(text, (countOf.get(text) ?? 0) + 1);
    rows++;
  }
  return { texts: [...countOf.keys()], counts: Float64Array.from(countOf.values()), rows };
}
