import fc from 'fast-check';
import { expect, it } from 'vitest';
import { allFlags, make } from '../../../testing/made';

const ROWS = 240;
const texts = (cell: Parameters<typeof make>[1], seed: number): string[] =>
  make(ROWS, cell, seed).map(String);
const repeated = (columns: Record<string, string[]>): string[][] =>
  allFlags(columns)
    .filter(({ rule }) => rule === 'repeat-column')
    .map(({ variables }) => variables);

/** Columns of a few codes each, no two of them alike but by chance. */
const others = (kinds: number): Record<string, string[]> =>
  Object.fromEntries(
    Array.from({ length: kinds }, (_, i) => [
      `other${i}`,
      texts((c) => (c.whole(0, 19) === 0 ? '' : c.whole(1, 7)), i + 1),
    ]),
  );

it('a column that repeats another is found among many, but for a slip, under other codes and beside blanks', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.nat(ROWS - 1), { maxLength: 1 }),
      fc.constantFrom('1234567', '7654321', 'abcdefg'),
      fc.nat(19),
      (slips, codes, at) => {
        const columns = others(20);
        const again = columns[`other${at}`].map((code) => (code === '' ? '' : codes[Number(code) - 1]));
        for (const row of slips) again[row] = codes[(codes.indexOf(again[row]) + 1) % 7];
        expect(repeated({ ...columns, again })).toEqual([[`other${at}`, 'again']]);
      },
    ),
    { numRuns: 15 },
  );
});

it('a value of its own in each row is found again, whichever row differs', () => {
  const one = texts((c) => c.whole(100000, 999999), 3);
  const columns = Object.fromEntries(
    Array.from({ length: 12 }, (_, i) => [`own${i}`, texts((c) => c.whole(100000, 999999), i + 10)]),
  );
  for (const row of [0, 10, 119, 120, 239]) {
    const again = one.map((cell, i) => (i === row ? '5' : cell));
    expect(repeated({ one, ...columns, again })).toEqual([['one', 'again']]);
  }
  expect(repeated({ one, ...columns })).toEqual([]);
});
