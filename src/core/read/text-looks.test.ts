import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isBlank, readsAsNumber } from './looks';
import { plainNumber, plainNumberIn } from './plain-number';
import { LOOK, looksOf } from './text-looks';

const digits = fc.stringMatching(/^[0-9]{0,18}$/);
const written = fc
  .tuple(
    fc.constantFrom('', '-', '+', ' ', '0'),
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
        const { bits, values, any } = looksOf(texts);
        texts.forEach((text, i) => {
          const number = !isBlank(text) && readsAsNumber(text);
          expect(Object.is(values[i], number ? Number(text) : NaN), text).toBe(true);
          expect((bits[i] & LOOK.blank) > 0).toBe(isBlank(text));
          expect((bits[i] & LOOK.number) > 0).toBe(number);
          expect((bits[i] & LOOK.pointed) > 0).toBe(number && /[.e]/i.test(text));
          if (!isBlank(text)) expect((bits[i] & LOOK.padded) > 0).toBe(text !== text.trim());
          expect((bits[i] & LOOK.zero) > 0).toBe(number && /^0\d/.test(text.trim()));
        });
        expect(any).toBe(bits.reduce((all, one) => all | one, 0));
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
