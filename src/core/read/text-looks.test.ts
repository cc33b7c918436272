import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isBlank, readsAsNumber } from './looks';
import { plainNumber, plainNumberIn } from './plain-number';
import { beginsAsWord } from './number';
import { LOOK, looksOf, numberIn } from './text-looks';
import { WordSet } from './word-set';

const digits = fc.stringMatching(/^[0-9]{0,18}$/);
const written = fc
  .tuple(
    fc.constantFrom('', '-', '+', ' ', '0', 'a', 'EUR', '€', 'a  b', '\u00a0'),
    digits,
    fc.constantFrom('', '.', ',', 'e5', 'E-3', 'x'),
    digits,
    fc.constantFrom('', ' ', '\t', '%'),
  )
  .map((parts) => parts.join(''));

describe('what texts show at one look', () => {
  it('is what reading each of them tells', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(written, fc.string(), fc.double().map(String))), (texts) => {
        const { bits, values, any, all, longest } = looksOf(texts);
        texts.forEach((text, i) => {
          const number = !isBlank(text) && readsAsNumber(text);
          expect(Object.is(values[i], number ? Number(text) : NaN), text).toBe(true);
          expect((bits[i] & LOOK.blank) > 0).toBe(isBlank(text));
          expect((bits[i] & LOOK.number) > 0).toBe(number);
          expect((bits[i] & LOOK.pointed) > 0).toBe(number && /[.e]/i.test(text));
          if (!isBlank(text)) expect((bits[i] & LOOK.padded) > 0).toBe(text !== text.trim());
          expect((bits[i] & LOOK.zero) > 0).toBe(number && /^0\d/.test(text.trim()));
          expect(Object.is(numberIn(text), values[i]), text).toBe(true);
          if (isBlank(text)) return;
          expect((bits[i] & LOOK.plain) > 0).toBe(/^[ -~]*$/.test(text));
          expect((bits[i] & LOOK.spaced) > 0).toBe(/^[!-~]+( [!-~]+)*$/.test(text));
          expect((bits[i] & LOOK.digit) > 0).toBe(/[0-9]/.test(text));
          expect((bits[i] & LOOK.marked) > 0).toBe(/[.,]/.test(text));
          expect((bits[i] & LOOK.lettered) > 0).toBe(beginsAsWord(text));
        });
        expect(any).toBe(bits.reduce((some, one) => some | one, 0));
        expect(all).toBe(bits.reduce((each, one) => each & one, ~0));
        expect(longest).toBe(Math.max(0, ...texts.map(({ length }) => length)));
      }),
      { numRuns: 3000 },
    );
  });

  it('is remembered for a list', () => {
    const texts = ['1', 'a'];
    expect(looksOf(texts)).toBe(looksOf(texts));
  });
});

it('a plain number is the same in text and in bytes', () => {
  fc.assert(
    fc.property(fc.oneof(written, fc.double().map(String)), fc.string(), (text, around) => {
      const bytes = new TextEncoder().encode(around + text + around);
      const from = new TextEncoder().encode(around).length;
      expect(Object.is(plainNumberIn(bytes, from, bytes.length - from), plainNumber(text))).toBe(true);
    }),
    { numRuns: 3000 },
  );
});

it('words of a set are found where they lie, in any case, and only whole', () => {
  const words = new WordSet(['not', 'n', '7th', 'unable', 'x'.repeat(40)]);
  const has = (text: string): boolean => words.has(text, 0, text.length);
  expect(['not', 'NOT', 'n', '7th', 'Unable', 'X'.repeat(40)].every(has)).toBe(true);
  expect(['', 'no', 'note', 'm', '8th', 'x'.repeat(39), 'x'.repeat(41), 'nöt', 'ñot'].some(has)).toBe(false);
  expect(words.has('it is not so', 6, 9)).toBe(true);
});
