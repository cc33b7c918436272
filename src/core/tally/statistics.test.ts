import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { histogram, roundWidth } from './histogram';
import { modes } from './mode';
import { moments } from './moments';
import { quantile } from './quantile';
import type { Weighed } from './weighed';
import { weightedMoments } from './weighted-moments';
import { weightedQuantile } from './weighted-quantile';

/** Values with counts, sorted. */
const weigh = (values: number[]): Weighed => {
  const counts = new Map<number, number>();
  for (const value of [...values].sort((a, b) => a - b)) counts.set(value, (counts.get(value) ?? 0) + 1);
  return { values: [...counts.keys()], counts: [...counts.values()] };
};
const digits = (found: number | null, certified: number): number =>
  -Math.log10(Math.abs((found ?? NaN) - certified) / Math.abs(certified) || 1e-16);

describe('mean and standard deviation', () => {
  // The univariate data sets NumAcc1 to NumAcc4 of the NIST statistical reference data sets, with certified values.
  const alternating = (base: number, pairs: number): number[] => [
    base + 0.2,
    ...Array.from({ length: pairs }, () => [base + 0.1, base + 0.3]).flat(),
  ];
  it.each([
    ['NumAcc1', [10000001, 10000003, 10000002], 10000002, 1],
    ['NumAcc2', [1.2, ...Array.from({ length: 500 }, () => [1.1, 1.3]).flat()], 1.2, 0.1],
    ['NumAcc3', alternating(1000000, 500), 1000000.2, 0.1],
    ['NumAcc4', alternating(10000000, 500), 10000000.2, 0.1],
  ])('agree with the certified values of %s', (_, values, mean, sd) => {
    const found = moments(weigh(values));
    expect(digits(found.mean, mean)).toBeGreaterThan(14);
    // The data themselves are only as exact as doubles near 10⁷ are, which leaves eight digits to NumAcc4.
    expect(digits(found.sd, sd)).toBeGreaterThan(mean > 1e7 ? 7.5 : 9);
  });

  it('need one and two values', () => {
    expect(moments(weigh([]))).toMatchObject({ n: 0, mean: null, sd: null });
    expect(moments(weigh([4]))).toMatchObject({ n: 1, mean: 4, sd: null });
  });

  it('do not change when values are given with counts', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 2 }), (values) => {
        const single = moments({ values, counts: values.map(() => 1) });
        const counted = moments(weigh(values));
        expect(counted.mean).toBeCloseTo(single.mean as number, 10);
        expect(counted.sd).toBeCloseTo(single.sd as number, 10);
      }),
    );
  });
});

describe('skewness and kurtosis', () => {
  it('are those of Joanes & Gill, type 2', () => {
    // By hand: m2 = 2, m4 = 6.8, so g2 = −1.3 and G2 = 4/6 · (6 · −1.3 + 6) = −1.2; symmetric, so G1 = 0.
    expect(moments(weigh([1, 2, 3, 4, 5]))).toMatchObject({
      skewness: 0,
      kurtosis: expect.closeTo(-1.2, 12) as number,
    });
    // By hand: mean 2, m2 = 3, m3 = 6, so g1 = 2/√3 and G1 = √(4·3)/2 · 2/√3 = 2.
    expect(moments(weigh([1, 1, 1, 5])).skewness).toBeCloseTo(2, 12);
  });

  it('are absent without spread or with too few values', () => {
    expect(moments(weigh([3, 3, 3, 3, 3]))).toMatchObject({ skewness: null, kurtosis: null });
    expect(moments(weigh([1, 2]))).toMatchObject({ skewness: null });
    expect(moments(weigh([1, 2, 4]))).toMatchObject({ kurtosis: null });
  });

  it('of mirrored values mirror', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -99, max: 99 }), { minLength: 4, maxLength: 40 }), (values) => {
        const there = moments(weigh(values));
        const back = moments(weigh(values.map((x) => -x)));
        if (there.skewness !== null) expect(back.skewness).toBeCloseTo(-there.skewness, 8);
      }),
    );
  });
});

describe('quantiles', () => {
  it('follow type 7 of Hyndman & Fan', () => {
    const values = weigh([1, 2, 3, 4]);
    expect([0, 0.25, 0.5, 0.75, 1].map((p) => quantile(values, p))).toEqual([1, 1.75, 2.5, 3.25, 4]);
    expect(quantile(weigh([7, 7, 7, 10]), 0.5)).toBe(7);
    expect(quantile(weigh([]), 0.5)).toBeNull();
  });

  it('lie between the extremes and do not fall', () => {
    fc.assert(
      fc.property(fc.array(fc.integer(), { minLength: 1 }), (values) => {
        const found = [0, 0.1, 0.25, 0.5, 0.9, 1].map((p) => quantile(weigh(values), p) as number);
        expect(found[0]).toBe(Math.min(...values));
        expect(found[5]).toBe(Math.max(...values));
        found.slice(1).forEach((x, i) => expect(x).toBeGreaterThanOrEqual(found[i]));
      }),
    );
  });
});

it('modes are all tied values, and none where each occurs once', () => {
  expect(modes([3, 1, 3])).toEqual([0, 2]);
  expect(modes([1, 1, 1])).toEqual([]);
});

describe('the histogram', () => {
  it('holds every row, in at most 60 bins with round widths', () => {
    const numbers = fc.array(
      // Where values lie closer together than a double tells bins apart there is none.
      fc.oneof(
        fc.integer({ min: -1000, max: 100000 }),
        fc.double({ min: -5, max: 5, noNaN: true }).filter((x) => x === 0 || Math.abs(x) > 1e-280),
      ),
      { minLength: 1, maxLength: 80 },
    );
    fc.assert(
      fc.property(numbers, fc.boolean(), (values, whole) => {
        const used = whole ? values.map(Math.round) : values;
        const drawn = histogram(weigh(used), whole);
        expect(drawn?.counts.reduce((sum, count) => sum + count, 0)).toBe(values.length);
        expect(drawn?.counts.length).toBeLessThanOrEqual(60);
        if (whole) expect(Number.isInteger(drawn?.width) && Number.isInteger(drawn?.start)).toBe(true);
        const mantissa = (drawn?.width ?? 1) / 10 ** Math.floor(Math.log10(drawn?.width ?? 1) + 1e-9);
        if (new Set(used).size > 1 && !whole)
          expect([1, 2, 2.5, 5].some((step) => Math.abs(step - mantissa) < 1e-6)).toBe(true);
      }),
    );
  });

  it('puts a value on an edge into the bar that begins there', () => {
    expect(histogram(weigh([0, 1, 1, 2, 3]), true)).toEqual({ start: 0, width: 2, counts: [3, 2] });
  });

  it('moves widths up to round numbers', () => {
    expect([0.013, 0.2, 2.1, 3, 7, 50].map((width) => roundWidth(width, false))).toEqual([
      0.02, 0.2, 2.5, 5, 10, 50,
    ]);
    expect(roundWidth(0.3, true)).toBe(1);
  });
});

describe('the examples beside the definitions', () => {
  const of = (values: number[], counts = values.map(() => 1)): { values: number[]; counts: number[] } => ({
    values,
    counts,
  });
  it('are true', () => {
    const { mean, sd, variance } = moments(of([2, 4, 4, 4, 5, 5, 7, 9]));
    expect([mean, variance, sd]).toEqual([5, 32 / 7, Math.sqrt(32 / 7)]);
    const weighted = weightedMoments(of([1, 3], [3, 1]), 2);
    expect(weighted.mean).toBe(1.5);
    expect(weighted.sd).toBeCloseTo(Math.sqrt(3 / (4 * 0.5)), 12);
    expect([modes([2, 5, 5]), modes([1, 1])]).toEqual([[1, 2], []]);
    expect(weightedQuantile(of([1, 2, 3], [1, 1, 2]), 3, 0.5)).toBe(3);
  });
});
