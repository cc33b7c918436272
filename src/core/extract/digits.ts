/** So many digits are held exactly by a double, whatever they are. */
const MOST_DIGITS = 15;
const ZERO = 0x30;
const POINT = 0x2e;
const MINUS = 0x2d;

/**
 * The digits of a cell as one whole number, if it is a number that is written in one way alone: a minus or nothing, digits
 * without a needless zero before them, and so many decimals as the others of its column; NaN for any other cell. So "12.50"
 * with two decimals is 1250, and no other text is.
 */
export function digitsIn(source: Uint8Array, from: number, to: number, decimals: number): number {
  const minus = source[from] === MINUS;
  const begin = minus ? from + 1 : from;
  const point = decimals > 0 ? to - decimals - 1 : to;
  // A point with nothing before it, and a zero before other digits, are other ways to write a number.
  if (point <= begin || point - begin + decimals > MOST_DIGITS) return NaN;
  if (source[begin] === ZERO && point > begin + 1) return NaN;
  let value = 0;
  let at = begin;
  for (; at < point; at++) {
    const digit = source[at] - ZERO;
    if (digit < 0 || digit > 9) return NaN;
    value = value * 10 + digit;
  }
  if (decimals > 0) {
    if (source[at++] !== POINT) return NaN;
    for (; at < to; at++) {
      const digit = source[at] - ZERO;
      if (digit < 0 || digit > 9) return NaN;
      value = value * 10 + digit;
    }
  }
  if (!minus) return value;
  return value === 0 ? NaN : -value;
}

/** Digits behind the point of a number that is written in one way alone; −1 for any other cell. */
export function decimalsIn(source: Uint8Array, from: number, to: number): number {
  let point = to;
  for (let at = from; at < to; at++) if (source[at] === POINT) point = at;
  const decimals = point === to ? 0 : to - point - 1;
  // A point with nothing behind it is another way to write a number.
  if (point === to - 1) return -1;
  const digits = digitsIn(source, from, to, decimals);
  return digits === digits ? decimals : -1;
}

/** The text of such a number. */
export function writtenDigits(digits: number, decimals: number): string {
  if (decimals === 0) return String(digits);
  const bare = String(Math.abs(digits)).padStart(decimals + 1, '0');
  const point = bare.length - decimals;
  return `${digits < 0 ? '-' : ''}${bare.slice(0, point)}.${bare.slice(point)}`;
}
