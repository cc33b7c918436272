import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bitsOf } from '../extract/bits';
import { columnOf, type Column } from '../extract/column';
import { PackedColumn } from '../extract/packed-column';
import type { Extract } from '../extract/extract';
import { extractOf } from '../../testing/made';
import { recordsOf } from './in-memory';
import { byFile, type Categories } from './records';

/** The same cells as a column of the other form. */
function packed(texts: readonly string[]): Column {
  const encoder = new TextEncoder();
  const parts = texts.map((text) => encoder.encode(text));
  const ends = new Uint32Array(parts.length);
  const bytes: number[] = [];
  parts.forEach((part, i) => {
    bytes.push(...part);
    ends[i] = bytes.length;
  });
  return new PackedColumn(Uint8Array.from(bytes), ends);
}
const extractFrom = (
  columns: Record<string, string[]>,
  form: (texts: string[]) => Column,
  files: number[] = [],
): Extract => ({
  ...extractOf(columns),
  variables: Object.entries(columns).map(([name, texts], i) => ({
    name,
    position: i + 1,
    column: form(texts),
    entry: null,
  })),
  files: files.map((rows, i) => ({ name: `f${i}`, rows }) as Extract['files'][number]),
});
const categories = (variable: string, ...texts: string[]): Categories => ({
  variable,
  size: texts.length,
  of: (text) => texts.indexOf(text),
});

describe('whatever holds rows', () => {
  const cell = fc.constantFrom('a', 'b', 'c', '');
  const rows = fc.array(fc.tuple(cell, cell, fc.constantFrom('1', '0.5', '0', 'x'), fc.boolean()), {
    minLength: 1,
    maxLength: 40,
  });

  it('counts as a plain loop over rows does, whatever the form of its columns, weighted or not, some rows or all', async () => {
    await fc.assert(
      fc.asyncProperty(rows, fc.boolean(), async (table, all) => {
        const columns = {
          x: table.map(([x]) => x),
          y: table.map(([, y]) => y),
          w: table.map(([, , w]) => w),
        };
        const within = all ? null : bitsOf(table.length, (row) => table[row][3]);
        const by = [categories('x', 'a', 'b'), categories('y', 'c', 'a', 'b')];
        const weight = { variable: 'w', of: (text: string): number => (text === 'x' ? NaN : Number(text)) };
        const plain = new Float64Array(6);
        const sums = new Float64Array(6);
        const positive = new Float64Array(6);
        const weighing = new Float64Array(6);
        const leftOut = [0, 0];
        let without = 0;
        table.forEach(([x, y, w, counts]) => {
          if (!all && !counts) return;
          const lacks = by[0].of(x) < 0 ? 0 : by[1].of(y) < 0 ? 1 : null;
          if (lacks !== null) {
            leftOut[lacks]++;
            return;
          }
          const cellOf = by[0].of(x) * 3 + by[1].of(y);
          plain[cellOf]++;
          if (w === 'x') without++;
          else {
            weighing[cellOf]++;
            sums[cellOf] += Number(w);
            if (Number(w) > 0) positive[cellOf]++;
          }
        });
        for (const form of [columnOf, packed]) {
          const records = recordsOf(extractFrom(columns, form));
          expect(await records.cross(by, within)).toEqual({
            sums: plain,
            rows: plain,
            positive: plain,
            leftOut,
            without: 0,
          });
          expect(await records.cross(by, within, weight)).toEqual({
            sums,
            rows: weighing,
            positive,
            leftOut,
            without,
          });
          const values = { variable: 'y', of: (text: string): number => (text ? 'abc'.indexOf(text) : NaN) };
          const cells = await records.measured([by[0]], values, within, weight);
          cells.forEach((one, place) =>
            expect([...one.values].flatMap((value, i) => Array<number>(one.rows[i]).fill(value))).toEqual(
              table
                .flatMap(([x, y, w, counts]) =>
                  (all || counts) && by[0].of(x) === place && y !== '' && Number(w) > 0 ? [values.of(y)] : [],
                )
                .sort(),
            ),
          );
          const tally = await records.tally('x', within);
          const counted = table.filter((row) => all || row[3]);
          expect(tally.rows).toBe(counted.length);
          expect(new Map(tally.texts.map((text, i) => [text, tally.counts[i]]))).toEqual(
            new Map(
              [...new Set(counted.map(([x]) => x))].map((text) => [
                text,
                counted.filter(([x]) => x === text).length,
              ]),
            ),
          );
          const first = await records.firstRows('x', [['a'], ['b', 'none']], 2, within);
          expect(first).toEqual(
            ['a', 'b'].map((text) =>
              table
                .flatMap(([x, , , counts], row) => (x === text && (all || counts) ? [row] : []))
                .slice(0, 2),
            ),
          );
          const page = await records.page(1, 3, within);
          expect(page).toEqual(table.flatMap((row, i) => (all || row[3] ? [i] : [])).slice(1, 4));
          expect(await records.cells(page, ['y', 'x'])).toEqual(
            page.map((row) => [table[row][1], table[row][0]]),
          );
        }
      }),
    );
  });

  it('knows the file of each row, and says what it does not have', async () => {
    const records = recordsOf(extractFrom({ x: ['a', 'b', 'a', 'a'] }, columnOf, [1, 0, 3]));
    expect([...(await records.cross([byFile(3), categories('x', 'a', 'b')], null)).sums]).toEqual([
      1, 0, 0, 0, 2, 1,
    ]);
    // Only the first files are asked for.
    expect([...(await records.cross([byFile(1)], null)).sums]).toEqual([1]);
    await expect(records.tally('none', null)).rejects.toThrow('there is no variable none');
  });
});
