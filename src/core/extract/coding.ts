/**
 * For each row a small integer: a column's distinct texts, its levels, several codes as one, the bands of a recode. Row r is
 * in category `to[codes[r]]`, from 0 up to `size` − 1; −1 for none. Whoever counts reads two arrays and nothing else.
 */
export interface Coding {
  size: number;
  codes: ArrayLike<number>;
  to: Int32Array;
}

/** What rows stand for as numbers: row r for `of[codes[r]]`; NaN for none. */
export interface Lifted {
  codes: ArrayLike<number>;
  of: Float64Array;
}

/** Numbers of the categories of a coding. @param of NaN for none */
export const lifted = ({ codes, to }: Coding, of: Float64Array): Lifted => ({
  codes,
  of: Float64Array.from(to, (category) => (category < 0 ? NaN : of[category])),
});

/** The category of a zero-based row; −1 for none. */
export const categoryAt = ({ codes, to }: Coding, row: number): number => to[codes[row]];

/** A coding of which several categories are one, or are left out. @param into the new category of each old one; −1 for none */
export function regrouped({ codes, to }: Coding, into: ArrayLike<number>, size: number): Coding {
  return { size, codes, to: Int32Array.from(to, (category) => (category < 0 ? -1 : into[category])) };
}

/**
 * Which stretch of rows each row lies in. @param starts zero-based first row of each stretch, and after them where the last one ends
 * @param rows number of all rows; those behind the last stretch lie in none
 */
export function codingOfStretches(starts: readonly number[], rows = starts[starts.length - 1] ?? 0): Coding {
  const size = starts.length - 1;
  const codes = new Uint16Array(rows).fill(size);
  for (let i = 0; i < size; i++) codes.fill(i, starts[i], starts[i + 1]);
  return { size, codes, to: Int32Array.from({ length: size + 1 }, (_, i) => (i < size ? i : -1)) };
}
