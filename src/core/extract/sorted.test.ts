import fc from 'fast-check';
import { expect, it } from 'vitest';
import { placeIn } from './sorted';

it('finds the first place that is not below, in numbers that repeat too', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -9, max: 9 })),
      fc.integer({ min: -10, max: 10 }),
      (some, sought) => {
        const sorted = Float64Array.from(some).sort();
        const below = some.filter((one) => one < sought).length;
        expect(placeIn(sorted, sought)).toBe(below);
      },
    ),
  );
});
