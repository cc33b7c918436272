import fc from 'fast-check';
import { expect, it } from 'vitest';
import { bitsOf, common, has, sizeOf } from './bits';

it('sets of rows count and meet as sets do', () => {
  const set = fc.uniqueArray(fc.integer({ min: 0, max: 199 }));
  fc.assert(
    fc.property(set, set, set, (a, b, c) => {
      const [x, y, z] = [a, b, c].map((rows) => bitsOf(200, (row) => rows.includes(row)));
      expect(sizeOf(x)).toBe(a.length);
      expect(common(x, y)).toBe(a.filter((row) => b.includes(row)).length);
      expect(common(x, y, z)).toBe(a.filter((row) => b.includes(row) && c.includes(row)).length);
      expect(Array.from({ length: 200 }, (_, row) => row).filter((row) => has(x, row))).toEqual(
        [...a].sort((p, q) => p - q),
      );
    }),
  );
});
