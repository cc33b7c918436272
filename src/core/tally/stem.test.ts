import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { histogram } from './histogram';
import { stemDisplay } from './stem';

const weigh = (values: number[]) => {
  const sorted = [...new Set(values)].sort((a, b) => a - b);
  return { values: sorted, counts: sorted.map((value) => values.filter((other) => other === value).length) };
};

describe('a stem display', () => {
  it('has every value as a leaf, depths from both ends, and extremes apart', () => {
    const made = stemDisplay(weigh([12, 15, 21, 21, 23, 28, 34, 35, 47, 190]), [21, 35]);
    expect(made).toMatchObject({ leafUnit: 1, perLeaf: 1, low: [], high: [190] });
    expect(made?.lines).toEqual([
      { stem: '1', leaves: '25', count: 2, depth: 2 },
      { stem: '2', leaves: '1138', count: 4, depth: 6 },
      { stem: '3', leaves: '45', count: 2, depth: 3 },
      { stem: '4', leaves: '7', count: 1, depth: 1 },
    ]);
  });

  it('has stems below zero whose leaves are the digits that are written', () => {
    const made = stemDisplay(weigh([-34, -31, -25, -4, 0, 5, 12, 27]), [-30, 10]);
    expect(made?.leafUnit).toBe(1);
    expect(made?.lines.map(({ stem, leaves }) => `${stem} | ${leaves}`)).toEqual([
      '-3 | 41',
      '-2 | 5',
      '-1 | ',
      '-0 | 4',
      '0 | 05',
      '1 | 2',
      '2 | 7',
    ]);
  });

  it('adds up to all rows, whatever they are', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -5000, max: 5000 }), { minLength: 2, maxLength: 300 }),
        (values) => {
          const weighed = weigh(values);
          const made = stemDisplay(weighed, [-5000, 5000]);
          if (new Set(values).size === 1) expect(made).toBeNull();
          else expect(made?.lines.reduce((sum, { count }) => sum + count, 0)).toBe(values.length);
          expect(made?.lines.length ?? 0).toBeLessThanOrEqual(22);
        },
      ),
    );
  });
});

describe('a histogram of a chosen width', () => {
  it('has that width and holds every value', () => {
    const made = histogram(weigh([1, 2, 3, 11, 12, 29]), true, 10);
    expect(made).toEqual({ start: 0, width: 10, counts: [3, 2, 1] });
  });

  it('is not drawn so fine that nothing can be seen', () => {
    expect(histogram(weigh([0, 100_000]), true, 1)?.counts.length).toBeLessThanOrEqual(60);
  });
});
