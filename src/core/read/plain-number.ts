/** Digits that a double holds exactly, whatever they are. */
const MOST_DIGITS = 15;
const TENS = Array.from({ length: MOST_DIGITS + 1 }, (_, i) => 10 ** i);

/**
 * The number that a text of a sign, few digits and a point is; NaN for any other. Digits as a whole number and a power of ten
 * are both held exactly, so that their quotient is the double nearest to what is written.
 */
export function plainNumber(text: string): number {
  const { length } = text;
  const first = text.charCodeAt(0);
  const from = first === 0x2d || first === 0x2b ? 1 : 0;
  if (length - from > MOST_DIGITS + 1) return NaN;
  let [value, digits, decimals] = [0, 0, -1];
  for (let i = from; i < length; i++) {
    const digit = text.charCodeAt(i) - 0x30;
    if (digit >= 0 && digit <= 9) {
      value = value * 10 + digit;
      digits++;
      if (decimals >= 0) decimals++;
    } else if (digit === -2 && decimals < 0) decimals = 0;
    else return NaN;
  }
  if (digits === 0 || digits > MOST_DIGITS) return NaN;
  const size = decimals > 0 ? value / TENS[decimals] : value;
  return first === 0x2d ? -size : size;
}

/** The same of the bytes of a text, where they lie from `start` up to `to`. */
export function plainNumberIn(bytes: Uint8Array, start: number, to: number): number {
  const from = bytes[start] === 0x2d || bytes[start] === 0x2b ? start + 1 : start;
  if (to - from > MOST_DIGITS + 1) return NaN;
  let [value, digits, decimals] = [0, 0, -1];
  for (let i = from; i < to; i++) {
    const digit = bytes[i] - 0x30;
    if (digit >= 0 && digit <= 9) {
      value = value * 10 + digit;
      digits++;
      if (decimals >= 0) decimals++;
    } else if (digit === -2 && decimals < 0) decimals = 0;
    else return NaN;
  }
  if (digits === 0 || digits > MOST_DIGITS) return NaN;
  const size = decimals > 0 ? value / TENS[decimals] : value;
  return bytes[start] === 0x2d ? -size : size;
}
