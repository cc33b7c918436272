import { has, type Bits } from '../extract/bits';
import { categoryAt, type Coding, type Lifted } from '../extract/coding';
import { BETWEEN_PULSES, pulse } from '../extract/pulse';

/** Which rows count, and for how much. */
export interface Counting {
  /** Only these rows; all where there is none. */
  within?: Bits | null;
  /** What rows count for; a row of which it is no number counts nowhere. One for each where there is none. */
  weight?: Lifted | null;
}

/** What was counted. Cells stand by the first coding, then the second, then the third. */
export interface Crossed {
  /** Rows in each cell. */
  rows: Float64Array;
  /** Sums of weights; the numbers of rows where there is no weight. */
  sums: Float64Array;
  /** Rows of a positive weight in each cell; the same as `rows` where there is no weight. */
  positive: Float64Array;
  /** Rows that count and are in no cell, each under the first coding of which they are in no category. */
  leftOut: number[];
  /** Rows that would be in a cell and have no weight. */
  without: number;
}

/**
 * Counts rows by one, two or three codings at once, in one pass over their codes. A row that is in no category of one of
 * them is counted in no cell.
 * @param rows number of all rows
 */
export function crossed(
  rows: number,
  codings: readonly Coding[],
  { within = null, weight = null }: Counting = {},
): Crossed {
  const cells = codings.reduce((product, { size }) => product * size, 1);
  const counts = new Float64Array(cells);
  const sums = weight ? new Float64Array(cells) : counts;
  const positive = weight ? new Float64Array(cells) : counts;
  const leftOut = codings.map(() => 0);
  let without = 0;
  blocks(rows, codings, within, leftOut, (from, to, at) => {
    if (!weight) {
      for (let i = 0; i < to - from; i++) if (at[i] >= 0) counts[at[i]]++;
      return;
    }
    const { codes, of } = weight;
    for (let i = 0; i < to - from; i++) {
      const cell = at[i];
      if (cell < 0) continue;
      const w = of[codes[from + i]];
      if (Number.isNaN(w)) {
        without++;
        continue;
      }
      counts[cell]++;
      sums[cell] += w;
      if (w > 0) positive[cell]++;
    }
  });
  return { rows: counts, sums, positive, leftOut, without };
}

/** Distinct values of a measure, ascending, with the rows that hold each and the sums of their weights. */
export interface Valued {
  values: Float64Array;
  rows: Float64Array;
  /** The same as `rows` where there is no weight. */
  weights: Float64Array;
}

/** Above so many cells times values they are not counted in one array. */
const MOST_DENSE = 4_000_000;

/**
 * The values of a measure in each cell that `crossed` counts. Rows without a value or a weight, and of weight zero where there
 * are weights, are left out.
 */
export function measured(
  rows: number,
  codings: readonly Coding[],
  measure: Lifted,
  { within = null, weight = null }: Counting = {},
): Valued[] {
  const cells = codings.reduce((product, { size }) => product * size, 1);
  const values = Float64Array.from(new Set(measure.of.filter((value) => !Number.isNaN(value)))).sort();
  const ranks = new Map(Array.from(values, (value, rank) => [value, rank]));
  const ranked: Coding = {
    size: values.length,
    codes: measure.codes,
    to: Int32Array.from(measure.of, (value) => ranks.get(value) ?? -1),
  };
  const weighing = weight && { codes: weight.codes, of: weight.of.map((w) => (w > 0 ? w : NaN)) };
  if (cells * values.length <= MOST_DENSE) {
    const counted = crossed(rows, [...codings, ranked], { within, weight: weighing });
    return Array.from({ length: cells }, (_, cell) => {
      const cut = (of: Float64Array): Float64Array =>
        of.subarray(cell * values.length, (cell + 1) * values.length);
      return held(values, cut(counted.rows), cut(counted.sums));
    });
  }
  return sorted(rows, codings, ranked, values, { within, weight: weighing }, cells);
}

/** Only the values that rows hold. */
function held(values: Float64Array, rows: Float64Array, weights: Float64Array): Valued {
  const own = values.filter((_, i) => rows[i] > 0);
  const counts = rows.filter((count) => count > 0);
  return {
    values: own,
    rows: counts,
    weights: rows === weights ? counts : weights.filter((_, i) => rows[i] > 0),
  };
}

/** The same where values are too many to have a place each in every cell: rows are sorted into their cells, then by value. */
function sorted(
  rows: number,
  codings: readonly Coding[],
  ranked: Coding,
  values: Float64Array,
  { within, weight }: Counting,
  cells: number,
): Valued[] {
  const cellOf = new Int32Array(rows);
  const starts = new Uint32Array(cells + 1);
  blocks(rows, codings, within ?? null, null, (from, to, at) => {
    for (let row = from; row < to; row++) {
      const lacks = categoryAt(ranked, row) < 0 || (weight && Number.isNaN(weight.of[weight.codes[row]]));
      const cell = lacks ? -1 : at[row - from];
      cellOf[row] = cell;
      if (cell >= 0) starts[cell + 1]++;
    }
  });
  for (let cell = 0; cell < cells; cell++) starts[cell + 1] += starts[cell];
  const places = starts.slice(0, cells);
  const inOrder = new Uint32Array(starts[cells]);
  for (let row = 0; row < rows; row++) if (cellOf[row] >= 0) inOrder[places[cellOf[row]]++] = row;
  return Array.from({ length: cells }, (_, cell) => {
    pulse();
    const own = inOrder.subarray(starts[cell], starts[cell + 1]);
    own.sort((a, b) => categoryAt(ranked, a) - categoryAt(ranked, b));
    const found: [number[], number[], number[]] = [[], [], []];
    let last = -1;
    for (const row of own) {
      const rank = categoryAt(ranked, row);
      if (rank !== last) {
        found[0].push(values[rank]);
        found[1].push(0);
        found[2].push(0);
      }
      last = rank;
      found[1][found[1].length - 1]++;
      found[2][found[2].length - 1] += weight ? weight.of[weight.codes[row]] : 1;
    }
    const [distinct, counts, sums] = found.map((one) => Float64Array.from(one));
    return { values: distinct, rows: counts, weights: sums };
  });
}

/**
 * Gives, block by block, the cell of each row; −1 for none. Coding after coding over a block: each loop then reads arrays of
 * one kind only.
 * @param leftOut for each coding counts up the rows that are in none of its categories, and in one of each before it
 */
function blocks(
  rows: number,
  codings: readonly Coding[],
  within: Bits | null,
  leftOut: number[] | null,
  take: (from: number, to: number, cells: Int32Array) => void,
): void {
  const at = new Int32Array(Math.min(rows, BLOCK));
  for (let from = 0; from < rows; from += BLOCK) {
    if (from % BETWEEN_PULSES < BLOCK) pulse();
    const to = Math.min(rows, from + BLOCK);
    if (within === null) at.fill(0);
    else for (let row = from; row < to; row++) at[row - from] = has(within, row) ? 0 : -1;
    codings.forEach((coding, k) => {
      const lost = placed(coding, from, to, at);
      if (leftOut) leftOut[k] += lost;
    });
    take(from, to, at);
  }
}
const BLOCK = 4096;

/** @returns rows that this coding has in no category */
function placed({ codes, to: categories, size }: Coding, from: number, to: number, at: Int32Array): number {
  let lost = 0;
  for (let row = from, i = 0; row < to; row++, i++) {
    const before = at[i];
    if (before < 0) continue;
    const category = categories[codes[row]];
    if (category < 0) lost++;
    at[i] = category < 0 ? -1 : before * size + category;
  }
  return lost;
}
