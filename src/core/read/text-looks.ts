import { BETWEEN_PULSES, pulse } from '../extract/pulse';
import { NumberTexts, textAt, type TextList } from '../extract/text-list';
import { isBlank, readsAsNumber } from './looks';
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
} as const;

/** What texts show, each looked at once. */
interface TextLooks {
  /** Of each text. */
  bits: Uint8Array;
  /** The number that each is; NaN for none. */
  values: Float64Array;
  /** The bits that any of them has. */
  any: number;
}

const known = new WeakMap<TextList, TextLooks>();

/** What texts show; remembered for a list of them, which does not change. */
export function looksOf(texts: TextList): TextLooks {
  const before = known.get(texts);
  if (before) return before;
  const bits = new Uint8Array(texts.length);
  const values = new Float64Array(texts.length).fill(NaN);
  let any = 0;
  const numbers = texts instanceof NumberTexts ? texts : null;
  const written = LOOK.number | (numbers && numbers.decimals > 0 ? LOOK.pointed : 0);
  for (let i = 0; i < texts.length; i++) {
    if ((i & (BETWEEN_PULSES - 1)) === 0) pulse();
    const digits = numbers ? numbers.digits[i] : NaN;
    if (numbers && digits === digits) {
      values[i] = digits / 10 ** numbers.decimals;
      bits[i] = written;
      any |= written;
      continue;
    }
    const text = textAt(texts, i);
    const quick = plainNumber(text);
    if (quick === quick) {
      values[i] = quick;
      bits[i] =
        LOOK.number | (text.includes('.') ? LOOK.pointed : 0) | (hasNeedlessZero(text) ? LOOK.zero : 0);
    } else bits[i] = slowly(text, i, values);
    any |= bits[i];
  }
  const made = { bits, values, any };
  known.set(texts, made);
  return made;
}

function slowly(text: string, i: number, values: Float64Array): number {
  if (isBlank(text)) return LOOK.blank;
  const bare = text.trim();
  const padded = bare === text ? 0 : LOOK.padded;
  if (!readsAsNumber(text)) return padded;
  values[i] = Number(text);
  return (
    padded | LOOK.number | (/[.e]/i.test(text) ? LOOK.pointed : 0) | (hasNeedlessZero(bare) ? LOOK.zero : 0)
  );
}

const hasNeedlessZero = (text: string): boolean =>
  text.charCodeAt(0) === 0x30 && text.length > 1 && text.charCodeAt(1) >= 0x30 && text.charCodeAt(1) <= 0x39;
