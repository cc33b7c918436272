import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnOf } from '../core/extract/column';
import { PackedColumn } from '../core/extract/packed-column';
import { fromBinary, sizeOf, toBinary } from '../core/extract/binary-column';
import { columnSchema } from './column-schema';

describe('what the browser keeps', () => {
  it('gives back every cell of a column exactly', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ unit: fc.constantFrom('a', '1', ' ', 'é', '€', '', '\uFEFF'), maxLength: 6 })),
        (cells) => {
          const column = fromBinary(toBinary(columnOf(cells)));
          expect(Array.from({ length: column.rows }, (_, row) => column.text(row))).toEqual(cells);
        },
      ),
    );
  });

  it('keeps columns of numbers by their digits', () => {
    const coded = Array.from({ length: 900 }, (_, i) =>
      i % 50 ? (i / 4).toFixed(2) : ['NA', '', ' 1'][i % 3],
    );
    const many = Array.from({ length: 300_000 }, (_, i) => (i % 1000 ? `${i * 3}` : 'none'));
    for (const [cells, form] of [
      [coded, 'coded-numbers'],
      [many, 'numbers'],
    ] as const) {
      const binary = toBinary(columnOf(cells));
      expect(binary.form).toBe(form);
      expect(columnSchema.safeParse(structuredClone(binary)).success).toBe(true);
      const column = fromBinary(binary);
      expect(Array.from({ length: column.rows }, (_, row) => column.text(row))).toEqual(cells);
      expect(sizeOf(binary)).toBeLessThan(cells.length * 20);
    }
  });

  it('keeps packed columns as they are', () => {
    const packed = new PackedColumn(new TextEncoder().encode('abé'), Uint32Array.of(1, 4));
    const column = fromBinary(toBinary(packed));
    expect([column.form, column.text(0), column.text(1)]).toEqual(['packed', 'a', 'bé']);
  });
});
