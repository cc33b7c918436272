/** A set of rows as bits, 32 to a word. */
export type Bits = Int32Array;

/** @returns the rows below `rows` for which a test holds */
export function bitsOf(rows: number, test: (row: number) => boolean): Bits {
  const bits = new Int32Array((rows + 31) >>> 5);
  for (let row = 0; row < rows; row++) if (test(row)) bits[row >>> 5] |= 1 << (row & 31);
  return bits;
}

export const has = (bits: Bits, row: number): boolean => (bits[row >>> 5] & (1 << (row & 31))) !== 0;

/** Bits that are set in a word, added up in pairs, fours and bytes. */
function ones(word: number): number {
  let x = word - ((word >>> 1) & 0x55555555);
  x = (x & 0x33333333) + ((x >>> 2) & 0x33333333);
  return Math.imul((x + (x >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** Rows that two sets, and a third where one is given, have in common. */
export function common(a: Bits, b: Bits, within: Bits | null = null): number {
  let rows = 0;
  if (within === null) for (let i = 0; i < a.length; i++) rows += ones(a[i] & b[i]);
  else for (let i = 0; i < a.length; i++) rows += ones(a[i] & b[i] & within[i]);
  return rows;
}

export const sizeOf = (bits: Bits): number => common(bits, bits);

/** The rows of a set, zero-based, ascending. */
export function rowsIn(bits: Bits): Uint32Array {
  const rows = new Uint32Array(sizeOf(bits));
  let n = 0;
  for (let word = 0; word < bits.length; word++)
    for (let left = bits[word]; left !== 0; left &= left - 1)
      rows[n++] = word * 32 + (31 - Math.clz32(left & -left));
  return rows;
}

/** The rows below `rows` that are in none of what was given. */
export function others(bits: Bits, rows: number): Bits {
  const rest = bits.map((word) => ~word);
  if (rows & 31 && rest.length) rest[rest.length - 1] &= (1 << (rows & 31)) - 1;
  return rest;
}

/** Rows of both sets. */
export const both = (a: Bits, b: Bits): Bits => a.map((word, i) => word & b[i]);
/** Rows of either set. */
export const either = (a: Bits, b: Bits): Bits => a.map((word, i) => word | b[i]);
/** Rows of the first set that are not in the second. */
export const except = (a: Bits, b: Bits): Bits => a.map((word, i) => word & ~b[i]);
/** All rows below `rows`. */
export const allRows = (rows: number): Bits => others(new Int32Array((rows + 31) >>> 5), rows);
/** Whether two sets are the same; `null` is the set of all rows. */
export const sameBits = (a: Bits | null, b: Bits | null): boolean =>
  a === b || (a !== null && b !== null && a.length === b.length && a.every((word, i) => word === b[i]));
