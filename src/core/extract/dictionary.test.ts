import fc from 'fast-check';
import { expect, it } from 'vitest';
import { Dictionary } from './dictionary';
import { NumberTexts } from './text-list';

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
      const texts = [...dictionary.texts()];
      expect(codes.map((code) => texts[code])).toEqual(cells);
      expect(texts).toHaveLength(new Set(cells).size);
    }),
  );
});

it('finds a cell in the midst of other bytes, and gives it back', () => {
  const dictionary = new Dictionary();
  const source = bytes('12,Upper Tarn,7');
  expect([
    dictionary.code(source, 3, 13),
    dictionary.code(source, 0, 2),
    dictionary.code(bytes('Upper Tarn'), 0, 10),
  ]).toEqual([0, 1, 0]);
  expect([0, 1].map((code) => new TextDecoder().decode(dictionary.bytesOf(code)))).toEqual([
    'Upper Tarn',
    '12',
  ]);
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
      const texts = [...dictionary.texts()];
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

it('finds many cells at once as it finds each', () => {
  const cell = fc.oneof(
    fc.stringMatching(/^-?[0-9]{1,12}(\.[0-9]{1,3})?$/),
    fc.integer({ min: 0, max: 400 }).map((i) => (i / 100).toFixed(2)),
    fc.string({ unit: fc.constantFrom('a', '7', '.', '\0', 'é'), maxLength: 11 }),
  );
  fc.assert(
    fc.property(fc.array(cell, { maxLength: 200 }), fc.nat({ max: 60 }), (cells, most) => {
      const source = bytes(cells.join(''));
      let at = 0;
      const ends = Uint32Array.from(cells, (text) => (at += bytes(text).length));
      const starts = Uint32Array.from(cells, (_, i) => (i === 0 ? 0 : ends[i - 1]));
      for (const limit of [Infinity, most]) {
        const [one, many] = [new Dictionary(limit), new Dictionary(limit)];
        const codes = cells.map((_, i) => one.code(source, starts[i], ends[i]));
        const found = new Int32Array(cells.length);
        const half = cells.length >> 1;
        const all = { bytes: source, starts, ends, first: 0, step: 1, rows: half };
        many.codes(all, found);
        const rest = new Int32Array(cells.length - half);
        many.codes({ ...all, first: half, rows: rest.length }, rest);
        found.set(rest, half);
        expect([...found]).toEqual(codes);
        expect([...many.texts()]).toEqual([...one.texts()]);
      }
    }),
    { numRuns: 300 },
  );
});

it('keeps numbers as such where nearly all are, and gives back what they were', () => {
  const dictionary = new Dictionary();
  const cells = [
    'NA',
    ...Array.from({ length: 3000 }, (_, i) => ((i * 7919) / 100 - 90).toFixed(2)),
    '',
    '1.5',
  ];
  for (const text of cells) dictionary.code(bytes(text), 0, bytes(text).length);
  const texts = dictionary.texts();
  expect(texts).toBeInstanceOf(NumberTexts);
  expect([...texts]).toEqual(cells);
  expect(dictionary.numbersOf(3)?.digits[1]).toBe(-9000);
  expect(dictionary.numbersOf(2)).toBeNull();
  expect(new TextDecoder().decode(dictionary.bytesOf(1))).toBe('-90.00');
});
