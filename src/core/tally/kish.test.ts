import fc from 'fast-check';
import { expect, it } from 'vitest';
import { kish } from './kish';

it('Kish’s figures are those worked by hand', () => {
  expect(kish({ values: [1, 2], counts: [2, 1] })).toEqual({
    effective: expect.closeTo(16 / 6) as number,
    designEffect: expect.closeTo(1.125) as number,
  });
  expect(kish({ values: [], counts: [] })).toBe(null);
});

it('equal weights lose nothing, and no others gain', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0.01, max: 1e6, noNaN: true }), { minLength: 1, maxLength: 30 }),
      (values) => {
        const found = kish({ values, counts: values.map(() => 1) });
        expect(found?.designEffect).toBeGreaterThanOrEqual(1 - 1e-9);
        expect((found?.effective ?? 0) * (found?.designEffect ?? 0)).toBeCloseTo(values.length, 6);
        expect(kish({ values: [values[0]], counts: [7] })?.effective).toBeCloseTo(7, 9);
      },
    ),
  );
});
