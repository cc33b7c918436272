import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { classify, partAt } from './gaters';

const of = (...levels: [number, number][]): [Float64Array, Float64Array] => [
  Float64Array.from(levels, ([all]) => all),
  Float64Array.from(levels, ([, empty]) => empty),
];

describe('the levels of a gate', () => {
  it('are shut or open, and none in between', () => {
    const [all, empty] = of([100, 100], [80, 3], [0, 0]);
    expect(classify(all, empty, 180)).toEqual({ shut: [0], open: [1], kept: 177 });
    expect(classify(...of([100, 100], [80, 40], [0, 0]), 180)).toBeNull();
  });

  it('leave a few rows to chance, and are no gate where only blanks are shut', () => {
    expect(classify(...of([100, 100], [80, 3], [4, 2], [0, 0]), 184)).toMatchObject({ shut: [0], open: [1] });
    // The last level is blank: whoever did not answer the one did not answer the other.
    expect(classify(...of([100, 2], [80, 3], [20, 20]), 200)).toBeNull();
  });

  it('are parted at the place with fewest exceptions, whichever side is shut', () => {
    const level = fc.tuple(fc.integer({ min: 5, max: 60 }), fc.integer({ min: 5, max: 60 }));
    fc.assert(
      fc.property(
        fc.array(level, { minLength: 4, maxLength: 20 }),
        fc.nat(),
        fc.boolean(),
        (counts, cut, below) => {
          const at = 1 + (cut % (counts.length - 1));
          const rows = counts.map(([all]) => all);
          const levels = rows.map((all, i): [number, number] => [all, i < at === below ? all : 0]);
          const side = (from: number, to: number): number =>
            rows.slice(from, to).reduce((sum, all) => sum + all, 0);
          const found = partAt(...of(...levels, [0, 0]));
          if (side(0, at) < 15 || side(at, rows.length) < 15) {
            expect(found === null || found.kept < side(0, rows.length) + 1).toBe(true);
            return;
          }
          const [under, over] = [
            levels.map((_, i) => i).filter((i) => i < at),
            levels.map((_, i) => i).filter((i) => i >= at),
          ];
          expect(found).toEqual({
            shut: below ? under : over,
            open: below ? over : under,
            kept: side(0, rows.length),
          });
        },
      ),
    );
  });

  it('take rows without a number to the side that they are like', () => {
    expect(partAt(...of([30, 30], [30, 30], [40, 0], [40, 0], [9, 9]))).toEqual({
      shut: [0, 1, 4],
      open: [2, 3],
      kept: 149,
    });
    expect(partAt(...of([30, 30], [30, 30], [40, 0], [40, 0], [9, 0]))?.open).toEqual([2, 3, 4]);
    expect(partAt(...of([30, 30], [30, 30], [40, 0], [40, 0], [10, 5]))).toBeNull();
  });
});
