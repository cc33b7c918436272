import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnOf, ColumnBuilder } from './column';
import { findRows } from './rows';

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
