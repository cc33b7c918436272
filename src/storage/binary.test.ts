import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnOf, PackedColumn } from '../core/extract/column';
import { fromBinary, toBinary } from './binary';

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

  it('keeps packed columns as they are', () => {
    const packed = new PackedColumn(new TextEncoder().encode('abé'), Uint32Array.of(1, 4));
    const column = fromBinary(toBinary(packed));
    expect([column.form, column.text(0), column.text(1)]).toEqual(['packed', 'a', 'bé']);
  });
});
