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
