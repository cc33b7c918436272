import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sequenceOf } from '../infer/sequence';
import { tallyColumn } from '../tally/tally';
import { columnOf, ColumnBuilder } from './column';
import { NumberColumn, ODD } from './number-column';
import { PackedColumn } from './packed-column';
import { findRows } from './rows';
import { textAt } from './text-list';
import { MOST_TEXTS } from './too-many';

const texts = (column: ReturnType<typeof columnOf>): string[] =>
  Array.from({ length: column.rows }, (_, row) => column.text(row));

describe('a column', () => {
  it('gives back every raw text exactly', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme' })), (cells) => {
        expect(texts(columnOf(cells))).toEqual(cells);
      }),
    );
  });

  it('tells the same of a column in each of its forms', () => {
    const cell = fc.constantFrom('1', '2', '-3', '40', 'x', '');
    fc.assert(
      fc.property(fc.array(cell, { minLength: 1, maxLength: 20 }), (cells) => {
        const coded = columnOf(cells);
        const odd = ['x', ''];
        const numbers = new NumberColumn(
          Float64Array.from(cells, (text) => (odd.includes(text) ? ODD + odd.indexOf(text) : Number(text))),
          0,
          odd,
        );
        const encoder = new TextEncoder();
        let used = 0;
        const ends = Uint32Array.from(cells, (text) => (used += encoder.encode(text).length));
        const packed = new PackedColumn(encoder.encode(cells.join('')), ends);
        for (const column of [coded, numbers, packed]) {
          expect(texts(column)).toEqual(cells);
          expect(cells.map((_, row) => column.isSame(row, 0))).toEqual(
            cells.map((text) => text === cells[0]),
          );
          expect(findRows(column, [['x'], ['2', '-3']], 3)).toEqual(findRows(coded, [['x'], ['2', '-3']], 3));
          const { codes, of } = column.numbers(Number);
          expect(cells.map((_, row) => of[codes[row]])).toEqual(cells.map(Number));
          const tally = tallyColumn(column);
          expect(new Map(tally.texts.map((text, i) => [text, tally.counts[i]]))).toEqual(
            new Map(cells.map((text) => [text, cells.filter((other) => other === text).length])),
          );
          expect(sequenceOf(column, true)).toEqual(sequenceOf(coded, true));
        }
      }),
    );
  });

  it('tells apart no more texts than memory has room for, and says so', () => {
    const many = MOST_TEXTS + 1;
    // Four signs each, no two alike.
    const bytes = new Uint8Array(many * 4);
    for (let i = 0; i < bytes.length; i++) bytes[i] = 0x30 + (((i >> 2) >> ((i & 3) * 6)) & 0x3f);
    const ends = new Uint32Array(many);
    for (let row = 0; row < many; row++) ends[row] = (row + 1) * 4;
    expect(() => new PackedColumn(bytes, ends).listed).toThrow(/more than 4 million different values/);
    const { texts: told, codes } = new PackedColumn(bytes, ends.subarray(0, 1000)).listed;
    expect([told.length, codes[999], told.at(999)]).toEqual([1000, 999, 'W?00']);
  });

  it('keeps each distinct text once', () => {
    const column = columnOf(['a', 'b', 'a', '', ' a', 'a']);
    expect(column.form === 'dictionary' && column.texts).toEqual(['a', 'b', '', ' a']);
  });

  it.each([
    [255, Uint8Array],
    [257, Uint16Array],
    [65_537, Uint32Array],
  ])('uses the narrowest codes that hold %d distinct texts', (distinct, kind) => {
    const column = columnOf(Array.from({ length: distinct }, (_, i) => `t${i}`));
    expect(column.form === 'dictionary' && column.codes).toBeInstanceOf(kind);
    expect(column.text(distinct - 1)).toBe(`t${distinct - 1}`);
    expect(column.text(3)).toBe('t3');
  });

  it('packs very many distinct texts, and gives the same back', () => {
    const cells = Array.from({ length: 300_000 }, (_, i) => (i % 3 ? `ID-${i}` : `Ü${i}€`));
    const column = columnOf(cells);
    expect(column.form).toBe('packed');
    for (const row of [0, 1, 2, 262_143, 262_144, 299_999]) expect(column.text(row)).toBe(cells[row]);
    expect(findRows(column, [['ID-299999'], ['ID-7', 'ID-8']], 5)).toEqual([[299_999], [7, 8]]);
  });

  it('keeps very many distinct numbers that are written alike by their digits, whatever else stands among them', () => {
    const odd = ['', 'NA', '007', '1.5', '-0.00', '12345678901234567.00'];
    const cells = Array.from({ length: 300_000 }, (_, i) =>
      i % 9 === 4 ? odd[i % odd.length] : ((i * 37 - 400_000) / 100).toFixed(2),
    );
    const column = columnOf(cells);
    expect(column.form).toBe('numbers');
    expect(texts(column)).toEqual(cells);
    const listed = column.listed;
    expect(Array.from(listed.codes, (code) => textAt(listed.texts, code))).toEqual(cells);
    expect(findRows(column, [['NA', '007'], [cells[7]], ['none', '0']], 2)).toEqual([
      cells.flatMap((text, row) => (text === 'NA' || text === '007' ? [row] : [])).slice(0, 2),
      [7],
      [],
    ]);
    const some = column.gather(Uint32Array.of(4, 299_999, 13));
    expect(texts(some)).toEqual([cells[4], cells[299_999], cells[13]]);
    expect(column.isSame(4, 4 + 9 * odd.length)).toBe(true);
    expect(column.isSame(0, 1)).toBe(false);
    const keys = column.keys;
    expect(keys(4)).toBe(keys(4 + 9 * odd.length));
    expect(new Set([0, 1, 2, 3].map(keys)).size).toBe(4);
    expect([column.lift((text) => text.length)(7), column.lift((text) => text === 'NA', false)(7)]).toEqual([
      cells[7].length,
      false,
    ]);
  });

  it('packs numbers in the end, where too many others come after them', () => {
    const cells = Array.from({ length: 310_000 }, (_, i) => (i < 300_000 ? `${i}` : `N${i}`));
    const column = columnOf(cells);
    expect(column.form).toBe('packed');
    for (const row of [0, 299_999, 300_000, 301_500, 309_999]) expect(column.text(row)).toBe(cells[row]);
  });

  it('keeps a byte order mark that stands in a cell', () => {
    expect(columnOf(['\uFEFFlong enough to be copied']).text(0)).toBe('\uFEFFlong enough to be copied');
  });

  it('fills rows that are too short with empty cells', () => {
    const builder = new ColumnBuilder();
    builder.pushFrom([['a', 'b'], ['c']], 1);
    builder.pushBlank(2);
    expect(texts(builder.finish())).toEqual(['b', '', '', '']);
  });

  it('finds the first rows of a value under any spelling', () => {
    expect(findRows(columnOf(['1', '2', '1.0', '1', '01']), [['1', '1.0'], ['01'], ['no']], 2)).toEqual([
      [0, 2],
      [4],
      [],
    ]);
  });
});
