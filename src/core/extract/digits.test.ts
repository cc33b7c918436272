import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decimalsIn, digitsIn, writtenDigits } from './digits';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const digits = (text: string, decimals: number): number =>
  digitsIn(bytes(text), 0, bytes(text).length, decimals);
const decimals = (text: string): number => decimalsIn(bytes(text), 0, bytes(text).length);

describe('numbers that are written in one way alone', () => {
  it.each([
    ['0', 0, 0],
    ['12', 0, 12],
    ['-7', 0, -7],
    ['12.50', 2, 1250],
    ['0.05', 2, 5],
    ['-0.05', 2, -5],
    ['0.0', 1, 0],
    ['999999999999999', 0, 999_999_999_999_999],
  ])('%s', (text, places, expected) => {
    expect([decimals(text), digits(text, places)]).toEqual([places, expected]);
    expect(writtenDigits(expected, places)).toBe(text);
  });

  it.each([
    '',
    '-',
    '.',
    '.5',
    '5.',
    '-.5',
    '007',
    '-0',
    '-0.00',
    '+1',
    '1e3',
    '1,5',
    ' 1',
    '1.2.3',
    'x1',
    '--1',
  ])('are no others: %s', (text) => {
    expect(decimals(text)).toBe(-1);
    for (const places of [0, 1, 2]) expect(digits(text, places)).toBeNaN();
  });

  it('are not longer than a double holds exactly', () => {
    expect(digits('1000000000000000', 0)).toBeNaN();
    expect(digits('12345678901234.56', 2)).toBeNaN();
  });

  it('are given back to the letter, and with another number of decimals are none', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -(10 ** 15 - 1), max: 10 ** 15 - 1 }),
        fc.integer({ min: 0, max: 6 }),
        (value, places) => {
          const text = writtenDigits(value, places);
          // A number shorter than its decimals is filled with zeros, which may be more digits than are read.
          fc.pre(text.replace(/[-.]/g, '').length <= 15);
          expect([decimals(text), digits(text, places)]).toEqual([places, value]);
          expect(digits(text, places + 1)).toBeNaN();
        },
      ),
    );
  });
});
