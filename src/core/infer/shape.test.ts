import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_OTHERS, type Level, type LevelList } from './level-list';
import {
  answersInMinutes,
  commonStep,
  falling,
  fullEnds,
  isEven,
  roundedTo,
  shapeOf,
  shareOfFives,
} from './shape';

/** Levels of whole numbers with the rows of each. */
const levels = (...pairs: (readonly [number, number])[]): Level[] =>
  pairs.map(([value, count]) => ({
    code: String(value),
    spellings: NO_OTHERS,
    value,
    label: null,
    count,
    standing: 'valid',
    reason: null,
    declaredBy: null,
  }));
const from = (first: number, step: number, counts: readonly number[]): Level[] =>
  levels(...counts.map((count, i) => [first + i * step, count] as const));
const shape = (of: LevelList) =>
  shapeOf(
    of,
    of.reduce((sum, { count }) => sum + count, 0),
  );

describe('gaps', () => {
  it('are values missing between frequent ones', () => {
    expect(shape(from(1, 1, [90, 80, 85, 70])).gaps).toBe(false);
    expect(shape(levels([1, 90], [2, 80], [5, 85], [6, 70])).gaps).toBe(true);
  });
  it('are none where a quantity runs out', () => {
    expect(shape(levels([0, 400], [1, 200], [2, 60], [3, 12], [5, 2], [9, 1])).gaps).toBe(false);
  });
  it('are none in few rows, where chance leaves holes', () => {
    expect(shape(levels([1, 3], [2, 4], [4, 3], [7, 2])).gaps).toBe(false);
  });
  it('are none right after zero in a longer list, which stands for none', () => {
    const ages = Array.from({ length: 20 }, (_, i) => [12 + i, 40] as const);
    expect(shape(levels([0, 300], ...ages)).gaps).toBe(false);
    expect(shape(levels([1, 300], ...ages)).gaps).toBe(true);
  });
});

describe('rise and fall', () => {
  it('counts turns beyond what chance makes', () => {
    expect(shape(from(1, 1, [100, 104, 98, 101])).turns).toBe(0);
    expect(shape(from(1, 1, [100, 300, 100, 300])).turns).toBe(2);
  });
  it('knows a quantity that runs out', () => {
    expect(shape(from(0, 1, [400, 250, 120, 40, 9, 2])).runsOut).toBe(true);
    expect(shape(from(1, 1, [100, 110, 95, 105, 90])).runsOut).toBe(false);
  });
  it('knows a bell by its thin ends', () => {
    expect(shape(from(3, 1, [4, 40, 160, 300, 170, 38, 3])).bell).toBe(true);
    expect(shape(from(3, 1, [90, 140, 160, 300, 170, 138, 93])).bell).toBe(false);
    expect(shape(from(3, 1, [4, 300, 20, 290, 18, 310, 3])).bell).toBe(false);
  });
  it('does not depend on how many times all rows are there, where they are many', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 200, max: 4000 }), { minLength: 4, maxLength: 12 }),
        (counts) => {
          const once = shape(from(1, 1, counts));
          expect(once.gaps).toBe(false);
          expect(
            shape(
              from(
                1,
                1,
                counts.map((count) => count * 100),
              ),
            ).turns,
          ).toBeGreaterThanOrEqual(once.turns);
        },
      ),
    );
  });
  it('falling is most rows in the lower half, from zero or one on', () => {
    expect(falling(from(0, 1, [300, 200, 90, 30, 8, 2]))).toBe(true);
    expect(falling(from(4, 1, [300, 200, 90, 30, 8, 2]))).toBe(false);
    expect(falling(from(1, 1, [90, 100, 95, 110]))).toBe(false);
  });
});

describe('steps', () => {
  it('in common are what all numbers are multiples of', () => {
    expect(commonStep(from(0, 10, [5, 5, 5]))).toBe(10);
    expect(commonStep(levels([15, 1], [35, 1], [50, 1]))).toBe(5);
    expect(commonStep(levels([-20, 1], [0, 1], [60, 1]))).toBe(20);
    expect(commonStep(levels([10, 1], [20, 1], [33, 1]))).toBe(0);
    expect(commonStep(levels([2, 1], [4, 1], [6, 1]))).toBe(0);
    expect(commonStep(levels([10, 1], [20.5, 1]))).toBe(0);
  });
  it('in common hold for any multiples, and two neighbours end them', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 5, max: 60 }),
        fc.uniqueArray(fc.integer({ min: -200, max: 200 }), { minLength: 2, maxLength: 20 }),
        (step, times) => {
          const sorted = [...times].sort((a, b) => a - b);
          const found = commonStep(levels(...sorted.map((n) => [n * step, 3] as const)));
          expect(found % step).toBe(0);
          expect(
            commonStep(
              levels(
                ...sorted.map((n) => [n * step, 3] as const),
                // Neighbours have no divisor in common; a single number may have one with all others.
                [100_000 * step + 1, 1],
                [100_000 * step + 2, 1],
              ),
            ),
          ).toBe(0);
        },
      ),
    );
  });
  it('of a rounded quantity leave hardly a value out, and it rises and falls once', () => {
    expect(roundedTo(from(0, 10, [4, 40, 160, 300, 310, 170, 38, 9, 3]))).toBe(10);
    // Occupations in tens go up and down; a few far values leave most of the range out.
    expect(roundedTo(from(10, 10, [400, 90, 380, 60, 500, 70, 320, 80, 410]))).toBe(0);
    expect(roundedTo(levels([0, 90], [10, 80], [20, 60], [500, 20], [900, 9]))).toBe(0);
  });
  it('of minutes grow with their size', () => {
    expect(
      answersInMinutes(levels(...[5, 10, 15, 20, 30, 45, 60, 90, 120].map((value) => [value, 20] as const))),
    ).toBe(true);
    expect(
      answersInMinutes(levels(...[10, 20, 30, 40, 60, 90, 120, 180].map((value) => [value, 20] as const))),
    ).toBe(false);
    expect(
      answersInMinutes(levels(...[11, 12, 14, 21, 25, 32, 41, 60].map((value) => [value, 20] as const))),
    ).toBe(false);
  });
});

describe('numberings', () => {
  it('are even where each value stands in as many rows', () => {
    expect(isEven(from(1, 1, [40, 40, 40, 40, 13]))).toBe(true);
    expect(isEven(from(1, 1, [40, 52, 31, 40, 13]))).toBe(false);
  });
  it('have full ends, where a quantity would run out', () => {
    expect(fullEnds(from(1, 1, [38, 44, 41, 50, 39]))).toBe(true);
    expect(fullEnds(from(1, 1, [38, 44, 41, 20, 3]))).toBe(false);
  });
  it('hold a fifth multiples of five; answers more', () => {
    expect(shareOfFives(from(1, 1, [10, 10, 10, 10, 10]))).toBe(0.2);
    expect(shareOfFives(levels([5, 60], [7, 20], [10, 20]))).toBe(0.8);
  });
});
