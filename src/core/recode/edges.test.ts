import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  bandAt,
  bandsBetween,
  edgesOf,
  onGrid,
  stepOf,
  withMerged,
  withMoved,
  withoutEdge,
  withSplit,
} from './edges';
import { byLabels, equalParts, roundBands } from './starts';

const ends = (bands: readonly { from: number | null; to: number | null; code: string }[]): unknown[] =>
  bands.map(({ from, to, code }) => [from, to, code]);

describe('bands between edges', () => {
  it('touch one another, are open at both ends, and are split, merged and moved', () => {
    const bands = bandsBetween([10, 20], 1);
    expect(ends(bands)).toEqual([
      [null, 9, '1'],
      [10, 19, '2'],
      [20, null, '3'],
    ]);
    expect(edgesOf(bands, 1)).toEqual([
      { at: 10, below: 0, above: 1 },
      { at: 20, below: 1, above: 2 },
    ]);
    expect(ends(withSplit(bands, 15.2, 1))).toEqual([
      [null, 9, '1'],
      [10, 14, '2'],
      [15, 19, '3'],
      [20, null, '4'],
    ]);
    expect(ends(withMerged(bands, 1))).toEqual([
      [null, 9, '1'],
      [10, null, '2'],
    ]);
    expect(ends(withMoved(bands, edgesOf(bands, 1)[0], 13, 1)).slice(0, 2)).toEqual([
      [null, 12, '1'],
      [13, 19, '2'],
    ]);
    // A band keeps one value at least.
    expect(ends(withMoved(bands, edgesOf(bands, 1)[0], 40, 1)).slice(0, 2)).toEqual([
      [null, 18, '1'],
      [19, 19, '2'],
    ]);
    expect(withSplit(bands, 10, 1)).toBe(bands);
    expect(ends(withoutEdge(bands, edgesOf(bands, 1)[1]))).toEqual(ends(withMerged(bands, 1)));
  });

  it('with a gap have an edge at either end of it, which moves by itself and goes no further than the next band', () => {
    const bands = [
      { from: 0, to: 9, code: '1', label: '' },
      { from: 20, to: null, code: '2', label: '' },
    ];
    const edges = edgesOf(bands, 1);
    expect(edges.map(({ at, below, above }) => [at, below, above])).toEqual([
      [0, null, 0],
      [10, 0, null],
      [20, null, 1],
    ]);
    expect(ends(withMoved(bands, edges[1], 30, 1))).toEqual([
      [0, 19, '1'],
      [20, null, '2'],
    ]);
    expect(ends(withoutEdge(bands, edges[0]))[0]).toEqual([null, 9, '1']);
    expect(withSplit(bands, 15, 1)).toBe(bands);
  });

  it('stand on the grid of what is written, whatever is done to them in whatever order', () => {
    expect(stepOf([1, 2, 30])).toBe(1);
    expect(stepOf([1, 2.5, 0.125])).toBe(0.001);
    expect(onGrid(0.30000000000000004, 0.1)).toBe(0.3);
    const deed = fc.tuple(
      fc.constantFrom('split', 'move', 'merge'),
      fc.integer({ min: 0, max: 9 }),
      fc.integer({ min: -50, max: 150 }),
    );
    fc.assert(
      fc.property(fc.array(deed, { maxLength: 25 }), fc.constantFrom(1, 0.1), (deeds, step) => {
        let bands: readonly ReturnType<typeof bandsBetween>[number][] = bandsBetween([20, 40, 60], step);
        for (const [what, which, value] of deeds) {
          const edges = edgesOf(bands, step);
          const edge = edges.at(which % Math.max(1, edges.length));
          if (what === 'split') bands = withSplit(bands, value * step, step);
          else if (what === 'merge') bands = withMerged(bands, which % Math.max(1, bands.length));
          else if (edge) bands = withMoved(bands, edge, value * step, step);
          // Every value stands in one band and in no other, and codes count up.
          for (const one of [-60, 0, 19.9, 20, 40, 61.3, 200].map((x) => onGrid(x, step)))
            expect(bands.filter((_, i) => bandAt([bands[i]], one) === 0).length).toBe(1);
          expect(bands.map(({ code }) => code)).toEqual(bands.map((_, i) => String(i + 1)));
        }
      }),
    );
  });
});

describe('quick starts', () => {
  const weighed = (values: number[]) => ({ values, counts: values.map(() => 1) });
  it('part the rows, at round numbers, and by what labels say', () => {
    expect(ends(equalParts(weighed([1, 2, 3, 4, 5, 6, 7, 8]), 4, 1))).toEqual([
      [null, 2, '1'],
      [3, 4, '2'],
      [5, 6, '3'],
      [7, null, '4'],
    ]);
    // Where many rows hold one value there are fewer bands.
    expect(equalParts({ values: [0, 9], counts: [90, 10] }, 4, 1)).toHaveLength(1);
    expect(ends(roundBands(Float64Array.from([3, 18, 47, 96]), 1)).slice(0, 2)).toEqual([
      [null, 9, '1'],
      [10, 19, '2'],
    ]);
    const code = (label: string, i: number): { code: string; label: string } => ({
      code: String(i + 1),
      label,
    });
    expect(byLabels(['Owned: outright', 'Owned: mortgage', 'Rented'].map(code))).toEqual([
      { label: 'Owned', codes: ['1', '2'] },
      { label: 'Rented', codes: ['3'] },
    ]);
    expect(byLabels(['Yes', 'No', 'yes'].map(code)).map(({ codes }) => codes)).toEqual([['1', '3'], ['2']]);
    expect(byLabels(['Yes', 'No'].map(code))).toEqual([]);
  });
});
