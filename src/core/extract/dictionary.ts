import type { CellsInBytes } from './cells-in-bytes';
import { decimalsIn, digitsIn, writtenDigits } from './digits';
import { NumberCodes } from './number-codes';
import { hashIn, textsIn } from './packed-texts';
import { NumberTexts, type TextList } from './text-list';

/** Cells up to this many bytes are their own key; two 32-bit integers hold them. */
const SHORT = 8;
/** Integers per entry of the table of short cells: the two halves of the key, the code plus one, and one to align. */
const ENTRY = 4;
/** A column's texts have their places in numbers of 32 bits. */
export const MOST_BYTES = 2 ** 32 - 1;

/** Thrown where the texts of a column are longer together than it has places for. */
export class TooLong extends Error {
  constructor() {
    super(
      'it holds more than 4 GB of text, more than one column has room for; read the files without it, or only their first rows',
    );
    this.name = 'TooLong';
  }
}

const ZERO = 0x30;
const POINT = 0x2e;
const MINUS = 0x2d;

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });

/** Longest number that is read as a whole number of 32 bits: its digits, and a point. */
const PLAIN = 9;
/** Of so many different cells those that are numbers are kept as such, where no more than a share of them are others. */
const LEAST_NUMBERS = 1 << 8;
const MOST_OTHERS = 1 / 4;

/**
 * Distinct cells with their codes. A cell is looked up where it lies in the bytes of the file, and only the first of equal
 * ones is kept. Numbers that are written as numbers are, all with as many decimals as the first, are kept as such and found by
 * their value: no other text has it. Of others the bytes are copied. Short ones without a zero byte, which most are, are found
 * by their bytes themselves in one look at memory; longer ones by FNV-1a hash and comparison. All tables use open addresses.
 */
export class Dictionary {
  size = 0;
  private bytes = new Uint8Array(256);
  private ends = new Uint32Array(16);
  private used = 0;
  /** Digits of a code's number, NaN where it is none; `null` before the first. */
  private digits: Float64Array | null = null;
  private numberSize = 0;
  /** Decimals of the numbers that are found by their value; −1 before the first. */
  private decimals = -1;
  private readonly numbers = new NumberCodes();
  private short = new Int32Array(64 * ENTRY);
  private shortSize = 0;
  private long = new Int32Array(0);
  private hashes = new Int32Array(0);
  private longSize = 0;

  /** @param most different cells that it learns; what it does not know then has no code */
  constructor(private readonly most = Infinity) {}

  /** Code of the cell from `from` up to `to`; a new one, which then is `size - 1`, if it was not there, and −1 where it learns no more. */
  code(source: Uint8Array, from: number, to: number): number {
    const length = to - from;
    const first = source[from];
    if (length > 0 && ((first ^ ZERO) < 10 || first === MINUS)) {
      if (this.decimals < 0) this.decimals = decimalsIn(source, from, to);
      const digits = this.decimals < 0 ? NaN : digitsIn(source, from, to, this.decimals);
      if (digits === digits) return this.numberCode(digits);
    }
    if (length > SHORT) return this.longCode(source, from, to);
    let low = 0;
    let high = 0;
    // Negative once a byte was zero: such cells would not be told from shorter ones.
    let least = 0;
    const half = length < 4 ? to : from + 4;
    for (let i = from, shift = 0; i < half; i++, shift += 8) {
      const byte = source[i];
      least |= byte - 1;
      low |= byte << shift;
    }
    for (let i = half, shift = 0; i < to; i++, shift += 8) {
      const byte = source[i];
      least |= byte - 1;
      high |= byte << shift;
    }
    if (least < 0) return this.longCode(source, from, to);
    const { short } = this;
    const mask = short.length - 1;
    let place = start(low, high) & mask;
    for (let code = short[place + 2]; code !== 0; code = short[place + 2]) {
      if (short[place] === low && short[place + 1] === high) return code - 1;
      place = (place + ENTRY) & mask;
    }
    if (this.size >= this.most) return -1;
    const code = this.learn(source, from, to);
    short[place] = low;
    short[place + 1] = high;
    short[place + 2] = code + 1;
    if (++this.shortSize * (1.5 * ENTRY) > short.length) this.growShort();
    return code;
  }

  /** Codes of many cells, as `code` gives them one by one. What is known is found here, in one loop. */
  codes(cells: CellsInBytes, into: Int32Array): void {
    const { bytes: source, starts, ends, first, step, rows } = cells;
    let { short, decimals } = this;
    let { near } = this.numbers;
    for (let row = 0, i = first; row < rows; row++, i += step) {
      const from = starts[i];
      const to = ends[i];
      const length = to - from;
      if (length <= PLAIN) {
        // As `digitsIn` reads it, where it is short and has a place.
        const point = decimals > 0 ? to - decimals - 1 : to;
        const head = source[from] ^ ZERO;
        if (head < 10 && point > from && (head !== 0 || point === from + 1)) {
          let number = 0;
          let odd = decimals;
          let at = from;
          for (; at < point; at++) {
            const digit = source[at] - ZERO;
            odd |= digit | (9 - digit);
            number = (Math.imul(number, 10) + digit) | 0;
          }
          if (decimals > 0) {
            if (source[at++] !== POINT) odd = -1;
            for (; at < to; at++) {
              const digit = source[at] - ZERO;
              odd |= digit | (9 - digit);
              number = (Math.imul(number, 10) + digit) | 0;
            }
          }
          if (odd >= 0 && number < near.length) {
            const code = near[number];
            if (code !== 0) {
              into[row] = code - 1;
              continue;
            }
          }
          if (odd >= 0) {
            into[row] = this.numberCode(number);
            ({ near } = this.numbers);
            continue;
          }
        }
        if (length <= SHORT) {
          let low = 0;
          let high = 0;
          let least = 0;
          const half = length < 4 ? to : from + 4;
          for (let at = from, shift = 0; at < half; at++, shift += 8) {
            const byte = source[at];
            least |= byte - 1;
            low |= byte << shift;
          }
          for (let at = half, shift = 0; at < to; at++, shift += 8) {
            const byte = source[at];
            least |= byte - 1;
            high |= byte << shift;
          }
          const mask = short.length - 1;
          let place = start(low, high) & mask;
          let code = least < 0 ? 0 : short[place + 2];
          while (code !== 0 && (short[place] !== low || short[place + 1] !== high)) {
            place = (place + ENTRY) & mask;
            code = short[place + 2];
          }
          if (code !== 0) {
            into[row] = code - 1;
            continue;
          }
        }
      }
      into[row] = this.code(source, from, to);
      ({ short, decimals } = this);
      ({ near } = this.numbers);
    }
  }

  /** Code of a number by its digits; a new one if it was not there, and −1 where it learns no more. */
  private numberCode(digits: number): number {
    const known = this.numbers.of(digits);
    if (known >= 0 || this.size >= this.most) return known;
    if (this.size === this.ends.length) this.growCodes();
    this.digits ??= new Float64Array(this.ends.length).fill(NaN);
    this.digits[this.size] = digits;
    this.numberSize++;
    this.ends[this.size] = this.used;
    this.numbers.put(digits, this.size);
    return this.size++;
  }

  /** The bytes of a code's cell. */
  bytesOf(code: number): Uint8Array {
    const digits = this.digits ? this.digits[code] : NaN;
    return digits === digits
      ? encoder.encode(writtenDigits(digits, this.decimals))
      : this.bytes.subarray(this.begin(code), this.ends[code]);
  }

  /** All codes as numbers, where all but a few are; else `null`. @param most others */
  numbersOf(most: number): { digits: Float64Array; decimals: number } | null {
    return this.digits && this.size - this.numberSize <= most
      ? { digits: this.digits.subarray(0, this.size), decimals: this.decimals }
      : null;
  }

  /** All distinct texts in the order of their codes. @param atOnce bytes that are read together: a text of all may be longer than texts can be */
  texts(atOnce?: number): TextList {
    const numbers = this.size >= LEAST_NUMBERS ? this.numbersOf(this.size * MOST_OTHERS) : null;
    if (!numbers) return this.allTexts(atOnce);
    const odd = new Map<number, string>();
    for (let code = 0; code < this.size; code++)
      if (Number.isNaN(numbers.digits[code])) odd.set(code, decoder.decode(this.bytesOf(code)));
    return new NumberTexts(numbers.digits.slice(), numbers.decimals, odd);
  }

  private allTexts(atOnce?: number): string[] {
    const texts = textsIn(this.bytes, this.ends, this.size, atOnce);
    if (this.digits)
      for (let code = 0; code < this.size; code++) {
        const digits = this.digits[code];
        if (digits === digits) texts[code] = writtenDigits(digits, this.decimals);
      }
    return texts;
  }

  private begin(code: number): number {
    return code === 0 ? 0 : this.ends[code - 1];
  }

  private learn(source: Uint8Array, from: number, to: number): number {
    const length = to - from;
    if (this.used + length > this.bytes.length) {
      if (this.used + length > MOST_BYTES) throw new TooLong();
      const room = Math.max(this.bytes.length * 2, this.used + length);
      this.bytes = larger(this.bytes, Math.min(room, MOST_BYTES), Uint8Array);
    }
    if (this.size === this.ends.length) this.growCodes();
    for (let i = from; i < to; i++) this.bytes[this.used++] = source[i];
    this.ends[this.size] = this.used;
    return this.size++;
  }

  private growCodes(): void {
    this.ends = larger(this.ends, this.size * 2, Uint32Array);
    if (!this.digits) return;
    this.digits = larger(this.digits, this.size * 2, Float64Array);
    this.digits.fill(NaN, this.size);
  }

  private growShort(): void {
    const before = this.short;
    // Small tables grow fast, large ones by no more than they need.
    const after = new Int32Array(before.length * (before.length < 1 << 16 ? 4 : 2));
    const mask = after.length - 1;
    for (let i = 0; i < before.length; i += ENTRY) {
      if (before[i + 2] === 0) continue;
      let place = start(before[i], before[i + 1]) & mask;
      while (after[place + 2] !== 0) place = (place + ENTRY) & mask;
      after[place] = before[i];
      after[place + 1] = before[i + 1];
      after[place + 2] = before[i + 2];
    }
    this.short = after;
  }

  private longCode(source: Uint8Array, from: number, to: number): number {
    if (this.long.length === 0) {
      this.long = new Int32Array(64);
      this.hashes = new Int32Array(64);
    }
    const mixed = hashIn(source, from, to);
    const hash = mixed ^ (mixed >>> 15);
    const mask = this.long.length - 1;
    let place = hash & mask;
    for (let code = this.long[place]; code !== 0; code = this.long[place]) {
      if (this.hashes[place] === hash && this.isAt(code - 1, source, from, to)) return code - 1;
      place = (place + 1) & mask;
    }
    if (this.size >= this.most) return -1;
    const code = this.learn(source, from, to);
    this.long[place] = code + 1;
    this.hashes[place] = hash;
    if (++this.longSize * 2 > this.long.length) this.growLong();
    return code;
  }

  private growLong(): void {
    const { long, hashes } = this;
    this.long = new Int32Array(long.length * 4);
    this.hashes = new Int32Array(long.length * 4);
    const mask = this.long.length - 1;
    for (let i = 0; i < long.length; i++) {
      if (long[i] === 0) continue;
      let place = hashes[i] & mask;
      while (this.long[place] !== 0) place = (place + 1) & mask;
      this.long[place] = long[i];
      this.hashes[place] = hashes[i];
    }
  }

  private isAt(code: number, source: Uint8Array, from: number, to: number): boolean {
    const begin = this.begin(code);
    if (this.ends[code] - begin !== to - from) return false;
    for (let i = 0; i < to - from; i++) if (this.bytes[begin + i] !== source[from + i]) return false;
    return true;
  }
}

/** First place of a short key, on an entry's boundary. */
function start(low: number, high: number): number {
  let hash = Math.imul(low ^ Math.imul(high, 0x85ebca6b), 0xc2b2ae35);
  hash ^= hash >>> 15;
  return Math.imul(hash, 0x27d4eb2f) & -ENTRY;
}

function larger<T extends Uint8Array | Uint32Array | Float64Array>(
  array: T,
  length: number,
  kind: { new (length: number): T },
): T {
  const made = new kind(length);
  made.set(array);
  return made;
}
