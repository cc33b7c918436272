let none = new Float64Array(0);

/** So many NaN, to be read only: one array serves all that hold no number. */
export function noNumbers(length: number): Float64Array {
  if (none.length < length) none = new Float64Array(length).fill(NaN);
  return none.subarray(0, length);
}
