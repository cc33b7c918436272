import { describe, expect, it } from 'vitest';
import { columnOf } from '../extract/column';
import { tallyColumn } from '../tally/tally';
import { itemsAlike, scaleOf } from './scale';

const cells = (...held: [string | number, number][]): string[] =>
  held.flatMap(([cell, times]) => Array<string>(times).fill(String(cell)));
const scale = (...held: [string | number, number][]): ReturnType<typeof scaleOf> =>
  scaleOf(tallyColumn(columnOf(cells(...held))));

describe('the scale that a variable answers on', () => {
  it('runs from its lowest to its highest step, codes for no answer left out', () => {
    expect(scale([1, 20], [2, 30], [3, 25], [4, 9], [5, 4])).toEqual({ low: 1, high: 5 });
    expect(scale([0, 20], [1, 30], [2, 25], [3, 9], [9, 4])).toEqual({ low: 0, high: 3 });
    expect(scale([1, 20], [2, 30], [3, 25], [-8, 9], [98, 2], [99, 4], ['', 7])).toEqual({ low: 1, high: 3 });
  });

  it('may lack one step that nobody gave, not more', () => {
    expect(scale([1, 20], [2, 30], [4, 9], [5, 4])).toEqual({ low: 1, high: 5 });
    expect(scale([1, 20], [3, 30], [6, 9])).toBeNull();
  });

  it('is none where there are two answers, too many, or words', () => {
    expect(scale([0, 20], [1, 30])).toBeNull();
    expect(scale(...Array.from({ length: 14 }, (_, i): [number, number] => [i, 5]))).toBeNull();
    expect(scale([1, 20], [2, 30], [3, 20], ['often', 30])).toBeNull();
    expect(scale([1.5, 20], [2.5, 30], [3.5, 20])).toBeNull();
    // A few stray words do no harm.
    expect(scale([1, 40], [2, 40], [3, 40], ['n/a', 3])).toEqual({ low: 1, high: 3 });
  });

  it('makes a battery of four items or more that share it', () => {
    const scales: Record<string, { low: number; high: number } | null> = {
      oft_a: { low: 1, high: 5 },
      oft_b: { low: 1, high: 5 },
      oft_c: { low: 1, high: 5 },
      oft_d: { low: 0, high: 3 },
      oft_e: null,
      agr_a: { low: 1, high: 5 },
    };
    const alike = (name: string): number => itemsAlike(name, Object.keys(scales), (other) => scales[other]);
    expect(alike('oft_a')).toBe(0);
    scales.oft_d = { low: 1, high: 5 };
    expect([alike('oft_a'), alike('oft_e'), alike('agr_a')]).toEqual([4, 0, 0]);
  });
});
