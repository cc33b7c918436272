import type { Coding } from '../extract/coding';
import { has, type Bits } from '../extract/bits';

/** Which rows count, and for how much. */
export interface Counting {
  /** Only these rows; all where there is none. */
  within?: Bits | null;
  /** What a row counts for; a row of which it is no number counts nowhere. One for each where there is none. */
  weight?: ((row: number) => number) | null;
}

/** What was counted. Cells stand by the first coding, then the second, then the third. */
export interface Crossed {
  /** Sums of weights, or numbers of rows where there is no weight. */
  sums: Float64Array;
  /** Rows of a positive weight in each cell; the same as `sums` where there is no weight. */
  rows: Float64Array;
  /** Rows without a weight. */
  without: number;
}

/**
 * Counts rows by one, two or three codings at once, in one pass over their codes. A row that is in no category of one of
 * them is counted nowhere.
 * @param rows number of all rows
 */
export function crossed(
  rows: number,
  codings: readonly Coding[],
  { within = null, weight = null }: Counting = {},
): Crossed {
  const cells = codings.reduce((product, { size }) => product * size, 1);
  const sums = new Float64Array(cells);
  const positive = weight ? new Float64Array(cells) : sums;
  let without = 0;
  const [first] = codings;
  const alone = codings.length === 1 ? first : null;
  for (let row = 0; row < rows; row++) {
    if (within !== null && !has(within, row)) continue;
    let cell = 0;
    if (alone) cell = alone.to[alone.codes[row]];
    else
      for (const { size, codes, to } of codings) {
        const category = to[codes[row]];
        if (category < 0) {
          cell = -1;
          break;
        }
        cell = cell * size + category;
      }
    if (weight === null) {
      if (cell >= 0) sums[cell]++;
      continue;
    }
    const w = weight(row);
    if (Number.isNaN(w)) {
      without++;
      continue;
    }
    if (cell < 0) continue;
    sums[cell] += w;
    if (w > 0) positive[cell]++;
  }
  return { sums, rows: positive, without };
}
