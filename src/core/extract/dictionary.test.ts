import fc from 'fast-check';
import { expect, it } from 'vitest';
import { Dictionary } from './dictionary';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

it('gives equal cells one code and different cells different ones, be they short, long, or with zero bytes', () => {
  const cell = fc.oneof(
    fc.string({ unit: fc.constantFrom('a', 'b', '\0', 'é'), maxLength: 12 }),
    fc.stringMatching(/^[0-9]{1,10}$/),
  );
  fc.assert(
    fc.property(fc.array(cell, { maxLength: 300 }), (cells) => {
      const dictionary = new Dictionary();
      const codes = cells.map((text) => dictionary.code(bytes(text), 0, bytes(text).length));
      const texts = dictionary.texts();
      expect(codes.map((code) => texts[code])).toEqual(cells);
      expect(texts).toHaveLength(new Set(cells).size);
    }),
  );
});

it('finds a cell in the midst of other bytes, and copies it out', () => {
  const dictionary = new Dictionary();
  const source = bytes('12,Upper Tarn,7');
  expect([
    dictionary.code(source, 3, 13),
    dictionary.code(source, 0, 2),
    dictionary.code(bytes('Upper Tarn'), 0, 10),
  ]).toEqual([0, 1, 0]);
  const target = new Uint8Array(12);
  expect([dictionary.copy(0, target, 2), dictionary.length(0)]).toEqual([12, 10]);
  expect(new TextDecoder().decode(target.subarray(2))).toBe('Upper Tarn');
});

it('keeps its codes while it grows', () => {
  const dictionary = new Dictionary();
  for (let i = 0; i < 20_000; i++) expect(dictionary.code(bytes(`${i}`), 0, `${i}`.length)).toBe(i);
  for (let i = 0; i < 20_000; i += 97) expect(dictionary.code(bytes(`${i}`), 0, `${i}`.length)).toBe(i);
});

it('tells numbers apart that are written otherwise, whatever came first, and finds each again', () => {
  const digits = fc.stringMatching(/^[0-9]{1,6}$/);
  const cell = fc.oneof(
    digits,
    fc.tuple(digits, digits).map(([a, b]) => `${a.slice(0, 3)}.${b.slice(0, 2)}`),
    fc.constantFrom(
      '',
      '0',
      '00',
      '0.0',
      '0.00',
      '.5',
      '5.',
      '-1',
      '+1',
      '1e3',
      '1.2.3',
      ' 1',
      '1 ',
      '01',
      '1,5',
    ),
    fc.integer({ min: 0, max: 40 }).map(String),
  );
  fc.assert(
    fc.property(fc.array(cell, { maxLength: 400 }), (cells) => {
      const dictionary = new Dictionary();
      const first = cells.map((text) => dictionary.code(bytes(text), 0, bytes(text).length));
      const again = cells.map((text) => dictionary.code(bytes(text), 0, bytes(text).length));
      const texts = dictionary.texts();
      expect(again).toEqual(first);
      expect(first.map((code) => texts[code])).toEqual(cells);
      expect(texts).toEqual([...new Set(cells)]);
    }),
    { numRuns: 300 },
  );
});

it('finds numbers again that were known before there was a place for them', () => {
  const dictionary = new Dictionary();
  const code = (text: string): number => dictionary.code(bytes(text), 0, text.length);
  // The first is far beyond the table; as more are known the table grows beyond it.
  const far = code('200000');
  for (let i = 0; i < 60_000; i++) code(String(i * 4 + 1));
  expect([code('200000'), dictionary.size]).toEqual([far, 60_001]);
  expect(new Set(dictionary.texts()).size).toBe(60_001);
});

it('reads its texts piece by piece where all together would be longer than a text can be', () => {
  const dictionary = new Dictionary();
  const cells = ['a', 'Größe', '', 'longer than a piece', 'é', 'z'.repeat(40), '🏠', 'b'];
  for (const text of cells) dictionary.code(bytes(text), 0, bytes(text).length);
  for (const atOnce of [1, 2, 7, 20, 1000]) expect(dictionary.texts(atOnce)).toEqual(cells);
});
