import { describe, expect, it } from 'vitest';
import { columnOf } from '../extract/column';
import { tallyColumn } from '../tally/tally';
import { batteryOf, Families, scaleOf } from './scale';

const cells = (...held: [string | number, number][]): string[] =>
  held.flatMap(([cell, times]) => Array<string>(times).fill(String(cell)));
const scale = (...held: [string | number, number][]): ReturnType<typeof scaleOf> =>
  scaleOf(tallyColumn(columnOf(cells(...held))));

describe('the scale that a variable answers on', () => {
  it('runs from its lowest to its highest step, codes for no answer left out', () => {
    expect(scale([1, 20], [2, 30], [3, 25], [4, 9], [5, 4])).toEqual({ low: 1, high: 5, codes: 5 });
    expect(scale([0, 20], [1, 30], [2, 25], [3, 9], [9, 4])).toEqual({ low: 0, high: 3, codes: 4 });
    expect(scale([1, 20], [2, 30], [3, 25], [-8, 9], [98, 2], [99, 4], ['', 7])).toEqual({
      low: 1,
      high: 3,
      codes: 3,
    });
  });

  it('is none where there are too many values, large ones, or words', () => {
    expect(scale(...Array.from({ length: 14 }, (_, i): [number, number] => [i, 5]))).toBeNull();
    expect(scale([1, 20], [2, 30], [230, 20])).toBeNull();
    expect(scale([1, 20], [2, 30], [3, 20], ['often', 30])).toBeNull();
    expect(scale([1.5, 20], [2.5, 30], [3.5, 20])).toBeNull();
    // A few stray words do no harm.
    expect(scale([1, 40], [2, 40], [3, 40], ['n/a', 3])).toEqual({ low: 1, high: 3, codes: 3 });
  });
});

describe('a battery', () => {
  const battery = (scales: Record<string, [number, number] | null>, name: string) =>
    batteryOf(name, new Families(Object.keys(scales)), (other) => {
      const found = scales[other];
      return found && { low: found[0], high: found[1], codes: found[1] - found[0] + 1 };
    });

  it('is four items or more that share their scale, by the stem of their names', () => {
    const three = { oft_a: [1, 5], oft_b: [1, 5], oft_c: [1, 5], agr_a: [1, 5] } as const;
    expect(battery({ ...three } as never, 'oft_a')).toBeNull();
    const four = { ...three, oft_d: [1, 5] };
    expect(battery(four as never, 'oft_a')).toEqual({ items: 4, low: 1, high: 5 });
    expect(battery(four as never, 'agr_a')).toBeNull();
  });

  it('or by their ending, and an item may lack steps that nobody gave', () => {
    const foods = {
      ryefreq: [1, 7],
      plumfreq: [1, 7],
      eggsfreq: [2, 6],
      milkfreq: [1, 7],
      milkquan: [1, 4],
    };
    expect(battery(foods as never, 'eggsfreq')).toEqual({ items: 4, low: 1, high: 7 });
    expect(battery(foods as never, 'milkquan')).toBeNull();
  });

  it('has no item beyond its scale', () => {
    const scales = { t_1: [1, 5], t_2: [1, 5], t_3: [1, 5], t_4: [1, 5], t_5: [0, 10] };
    expect(battery(scales as never, 't_5')).toBeNull();
    expect(battery(scales as never, 't_1')).toEqual({ items: 4, low: 1, high: 5 });
  });
});
