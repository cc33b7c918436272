import { noNumbers } from '../extract/no-numbers';
import { BETWEEN_PULSES, pulse } from '../extract/pulse';
import { NumberTexts, textAt, type TextList } from '../extract/text-list';
import { isBlank, readsAsNumber } from './looks';
import { beginsAsWord } from './number';
import { plainNumber } from './plain-number';

/** What a text shows at one look, as bits. */
export const LOOK = {
  blank: 1,
  /** A number as programs write it. */
  number: 2,
  /** Such a number with a point or an exponent. */
  pointed: 4,
  /** White space before or after something. */
  padded: 8,
  /** Such a number with a needless zero before its digits. */
  zero: 16,
  /** Only what a typewriter has: letters without accents, digits, signs and blanks. */
  plain: 32,
  /** Plain, and no blank before, after, or beside another. */
  spaced: 64,
  /** A digit from 0 to 9. */
  digit: 128,
  /** A point or a comma. */
  marked: 256,
  /** A letter first, and no currency: it is no number under any form. */
  lettered: 512,
} as const;

/** What every number shows that is sign, digits and point. */
const OF_DIGITS = LOOK.number | LOOK.plain | LOOK.spaced | LOOK.digit;
const OF_DECIMALS = OF_DIGITS | LOOK.pointed | LOOK.marked;

/** What texts show, each looked at once. */
interface TextLooks {
  /** Of each text. */
  bits: Uint16Array;
  /** The number that each is; NaN for none. */
  values: Float64Array;
  /** The bits that any of them has, and those that each has. */
  any: number;
  all: number;
  /** No text is longer, in code units. */
  longest: number;
}

const known = new WeakMap<TextList, TextLooks>();

/** A sign, 15 digits and a point: what is held as a number is no longer. */
const LONGEST_NUMBER = 17;

/** What texts show; remembered for a list of them, which does not change. */
export function looksOf(texts: TextList): TextLooks {
  const before = known.get(texts);
  if (before) return before;
  const bits = new Uint16Array(texts.length);
  const numbers = texts instanceof NumberTexts ? texts : null;
  let values = numbers ? valuesOf(numbers) : noNumbers(texts.length);
  // Filled where the first text shows a number.
  let isOwn = numbers !== null;
  let any = 0;
  let all = ~0;
  let longest = numbers ? LONGEST_NUMBER : 0;
  const written = numbers && numbers.decimals > 0 ? OF_DECIMALS : OF_DIGITS;
  for (let i = 0; i < texts.length; i++) {
    if ((i & (BETWEEN_PULSES - 1)) === 0) pulse();
    const digits = numbers ? numbers.digits[i] : NaN;
    if (digits === digits) {
      bits[i] = written;
      any |= written;
      all &= written;
      continue;
    }
    const text = textAt(texts, i);
    if (text.length > longest) longest = text.length;
    const quick = plainNumber(text);
    if (quick === quick) {
      bits[i] = (text.includes('.') ? OF_DECIMALS : OF_DIGITS) | (hasNeedlessZero(text) ? LOOK.zero : 0);
    } else bits[i] = shownBy(text);
    any |= bits[i];
    all &= bits[i];
    if (!(bits[i] & LOOK.number)) continue;
    if (!isOwn) {
      values = values.slice();
      isOwn = true;
    }
    values[i] = quick === quick ? quick : Number(text);
  }
  const made = { bits, values, any, all, longest };
  known.set(texts, made);
  return made;
}

/** The numbers of texts by their digits; NaN where a text is none of those. */
function valuesOf({ digits, decimals, odd }: NumberTexts): Float64Array {
  if (decimals === 0 && odd.size === 0) return digits;
  const values = new Float64Array(digits.length);
  const unit = 10 ** decimals;
  for (let i = 0; i < values.length; i++) values[i] = digits[i] / unit;
  return values;
}

/** The number that a text is as programs write it; NaN for none. */
export function numberIn(text: string): number {
  const quick = plainNumber(text);
  if (quick === quick) return quick;
  return shownBy(text) & LOOK.number ? Number(text) : NaN;
}

/** What a text shows, as bits. */
function shownBy(text: string): number {
  let shown = signsIn(text);
  if (beginsAsWord(text)) return shown | LOOK.lettered | (isPadded(text, shown) ? LOOK.padded : 0);
  if (!(shown & LOOK.digit)) {
    if (isBlank(text)) return LOOK.blank;
    return shown | (isPadded(text, shown) ? LOOK.padded : 0);
  }
  if (isPadded(text, shown)) shown |= LOOK.padded;
  if (!readsAsNumber(text)) return shown;
  return (
    shown |
    LOOK.number |
    (/[.e]/i.test(text) ? LOOK.pointed : 0) |
    (hasNeedlessZero(text.trim()) ? LOOK.zero : 0)
  );
}

/** What the characters of a text show, each looked at once. */
function signsIn(text: string): number {
  let shown: number = LOOK.plain | LOOK.spaced;
  let before = 0x20;
  for (let at = 0; at < text.length; at++) {
    const unit = text.charCodeAt(at);
    if (unit >= 0x30 && unit <= 0x39) shown |= LOOK.digit;
    else if (unit === 0x2e || unit === 0x2c) shown |= LOOK.marked;
    else if (unit < 0x20 || unit > 0x7e) shown &= ~(LOOK.plain | LOOK.spaced);
    else if (unit === 0x20 && before === 0x20) shown &= ~LOOK.spaced;
    before = unit;
  }
  return before === 0x20 ? shown & ~LOOK.spaced : shown;
}

const isPadded = (text: string, shown: number): boolean => !(shown & LOOK.spaced) && text.trim() !== text;

const hasNeedlessZero = (text: string): boolean =>
  text.charCodeAt(0) === 0x30 && text.length > 1 && text.charCodeAt(1) >= 0x30 && text.charCodeAt(1) <= 0x39;
