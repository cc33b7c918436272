import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { histogram, drawable } from './histogram';

describe('what is drawn', () => {
  const of = (values: number[]): { values: number[]; counts: number[] } => {
    const held = new Map<number, number>();
    for (const value of values) held.set(value, (held.get(value) ?? 0) + 1);
    const sorted = [...held.keys()].sort((a, b) => a - b);
    return { values: sorted, counts: sorted.map((value) => held.get(value) ?? 0) };
  };
  const body = Array.from({ length: 400 }, (_, i) => 1 + (i % 9));

  it('is all but the few that would squash the rest, which are told', () => {
    const { body: drawn, beyond } = drawable(of([...body, 5792, 998, 998, -400]));
    expect([drawn.values[0], drawn.values[drawn.values.length - 1]]).toEqual([1, 9]);
    expect(beyond).toEqual({
      below: { rows: 1, from: -400, to: -400 },
      above: { rows: 3, from: 998, to: 5792 },
    });
  });

  it('is all where nothing lies far out, or too much does', () => {
    expect(drawable(of([...body, 20])).beyond).toBeNull();
    expect(drawable(of([...body, ...Array<number>(60).fill(998)])).beyond).toBeNull();
    expect(drawable(of([1, 2, 3, 9000])).beyond).toBeNull();
  });

  it('loses no row: what is drawn and what is told add up to all', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.integer({ min: 0, max: 50 }), fc.integer({ min: -1e6, max: 1e6 })), {
          minLength: 1,
          maxLength: 300,
        }),
        (values) => {
          const all = of(values);
          const { body: drawn, beyond } = drawable(all);
          expect(
            Array.from(drawn.counts).reduce((a, b) => a + b, 0) +
              (beyond?.below?.rows ?? 0) +
              (beyond?.above?.rows ?? 0),
          ).toBe(values.length);
        },
      ),
    );
  });

  it('is none of values at the ends of what a double holds', () => {
    for (const values of [
      [1e-320, 1e308],
      [-1e308, 1e308],
      [1e-320, 2e-320],
      [1e305, 1.1e305],
    ])
      expect(histogram({ values, counts: values.map(() => 1) }, false)).toBeNull();
  });
});
