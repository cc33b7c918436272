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
