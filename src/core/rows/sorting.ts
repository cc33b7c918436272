import type { Coding } from '../extract/coding';
import { BETWEEN_PULSES, pulse } from '../extract/pulse';

/** What rows are sorted by. */
export interface SortKey {
  coding: Coding;
  /** For each category its rank, from 0; −1 for what has none and stands last, up or down. */
  ranks: Int32Array;
  down: boolean;
}

/**
 * Rows in the order of several keys, the first of which leads; ties stay as they were. Counted, not compared: linear in the
 * number of rows for each key.
 * @param rows zero-based @returns other rows of the same number
 */
export function sortRows(rows: Uint32Array, keys: readonly SortKey[]): Uint32Array {
  // The last key first: each later pass keeps what those before it ordered.
  return [...keys].reverse().reduce(sortedBy, rows);
}

function sortedBy(rows: Uint32Array, { coding: { codes, to }, ranks, down }: SortKey): Uint32Array {
  const most = ranks.reduce((high, rank) => Math.max(high, rank), -1);
  const bucketOf = Int32Array.from(to, (category) => {
    const rank = category < 0 ? -1 : ranks[category];
    return rank < 0 ? most + 1 : down ? most - rank : rank;
  });
  const starts = new Uint32Array(most + 3);
  for (let i = 0; i < rows.length; i++) starts[bucketOf[codes[rows[i]]] + 1]++;
  for (let bucket = 1; bucket < starts.length; bucket++) starts[bucket] += starts[bucket - 1];
  const sorted = new Uint32Array(rows.length);
  for (let i = 0; i < rows.length; i++) {
    if ((i & (BETWEEN_PULSES - 1)) === 0) pulse();
    sorted[starts[bucketOf[codes[rows[i]]]]++] = rows[i];
  }
  return sorted;
}

/** Order of texts by code point: that of their UTF-8 bytes, not of UTF-16 units. */
export function byCodePoint(a: string, b: string): number {
  const length = Math.min(a.length, b.length);
  for (let i = 0; i < length; i++) {
    const [x, y] = [a.charCodeAt(i), b.charCodeAt(i)];
    if (x === y) continue;
    // Surrogates stand for what lies beyond all other units.
    const [inX, inY] = [x >= 0xd800 && x <= 0xdfff, y >= 0xd800 && y <= 0xdfff];
    return inX === inY ? x - y : inX ? 1 : -1;
  }
  return a.length - b.length;
}
