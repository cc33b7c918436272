/**
 * For each row a small integer: a column's distinct texts, its levels, several codes as one, the bands of a recode. Row r is
 * in category `to[codes[r]]`, from 0 up to `size` − 1; −1 for none. Whoever counts reads two arrays and nothing else.
 */
export interface Coding {
  size: number;
  codes: ArrayLike<number>;
  to: Int32Array;
}

/** The category of a zero-based row; −1 for none. */
export const categoryAt = ({ codes, to }: Coding, row: number): number => to[codes[row]];

/** A coding of which several categories are one, or are left out. @param into the new category of each old one; −1 for none */
export function regrouped({ codes, to }: Coding, into: ArrayLike<number>, size: number): Coding {
  return { size, codes, to: Int32Array.from(to, (category) => (category < 0 ? -1 : into[category])) };
}

/** Which stretch of rows each row lies in. @param starts zero-based first row of each stretch, and after them the number of all rows */
export function codingOfStretches(starts: readonly number[]): Coding {
  const size = starts.length - 1;
  const codes = new Uint16Array(starts[size] ?? 0);
  for (let i = 0; i < size; i++) codes.fill(i, starts[i], starts[i + 1]);
  return { size, codes, to: Int32Array.from({ length: size }, (_, i) => i) };
}
