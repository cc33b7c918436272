import { has, type Bits } from '../extract/bits';
import type { Column } from '../extract/column';
import { BETWEEN_PULSES, pulse } from '../extract/pulse';
import { textsAt, type TextList } from '../extract/text-list';

/**
 * A column's distinct raw texts with the number of rows that hold each. Tallies of parts add up to the tally of the
 * whole, whatever the parts: files, chunks, subsets of rows. Texts stand in the
 * order in which they first appear; those of a column of numbers alone stand in the order of their values, odd ones last.
 */
export interface Tally {
  texts: TextList;
  /** Rows per text, same order. */
  counts: Float64Array;
  rows: number;
}

/** The tally of a column, from zero-based row `from` up to but not including `to`. @throws TooManyDistinct */
export function tallyColumn(column: Column, from = 0, to = column.rows): Tally {
  if (column.form === 'numbers' && from === 0 && to === column.rows)
    return { ...column.tallied, rows: column.rows };
  const { codes, texts } = column.listed;
  const all = new Float64Array(texts.length);
  for (let row = from; row < to; row++) all[codes[row]]++;
  return { ...present(texts, all), rows: to - from };
}

/** The tally of the rows of a column that count, from its codes: those that do not are never looked at one by one. */
export function tallyWithin(column: Column, within: Bits): Tally {
  const { codes, texts } = column.listed;
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
function present(texts: TextList, all: Float64Array): Pick<Tally, 'texts' | 'counts'> {
  if (all.every((count) => count > 0)) return { texts, counts: all };
  const held: number[] = [];
  for (let code = 0; code < all.length; code++) if (all[code] > 0) held.push(code);
  return { texts: textsAt(texts, held), counts: Float64Array.from(held, (code) => all[code]) };
}

/** The tally of loose texts. */
export function tallyTexts(texts: Iterable<string>): Tally {
  const countOf = new Map<string, number>();
  let rows = 0;
  for (const text of texts) {
    if ((rows & (BETWEEN_PULSES - 1)) === 0) pulse();
    countOf.set(text, (countOf.get(text) ?? 0) + 1);
    rows++;
  }
  return { texts: [...countOf.keys()], counts: Float64Array.from(countOf.values()), rows };
}
