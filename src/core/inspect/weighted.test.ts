import { atPlace } from '../extract/row-names';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readExtract } from '../intake/receive';
import { entryOf } from '../log/entries';
import { foldLog } from '../log/fold';
import { sourceOf } from '../read/source';
import { moments } from '../tally/moments';
import { quantile } from '../tally/quantile';
import { weightedMoments } from '../tally/weighted-moments';
import { weightedQuantile } from '../tally/weighted-quantile';
import { Inspector } from './inspect';
import { profileOf } from './profile';
import { groupedBy } from './grouped';

const NUMBERS = Array.from(
  { length: 60 },
  (_, i) => `${(i % 30) + 0.5},${i % 2 ? 'north' : 'south'},${i < 30 ? 1 : 3}`,
).join('\n');
async function weighed(text: string, by: string | null, aside: number[] = []): Promise<Inspector> {
  const dig = new Inspector(await readExtract([{ source: sourceOf('w.csv', text) }]));
  dig.lay(
    foldLog([
      entryOf({ type: 'weigh', by }, 'w', new Date(0)),
      ...(aside.length
        ? [entryOf({ type: 'set-aside', rows: aside.map(atPlace), rule: null }, 'a', new Date(0))]
        : []),
    ]),
  );
  return dig;
}

describe('a weight in force', () => {
  const text = 'x,wt\n1,0.5\n2,2\n1,1.5\n,3\n2,\n1,-1\n2,1.0\n';
  it('that is declared missing is none, and one that counts for another weighs as that', async () => {
    const dig = new Inspector(
      await readExtract([{ source: sourceOf('w.csv', 'x,wt\n1,2\n1,999\n2,3\n2,4\n') }]),
    );
    dig.lay(
      foldLog(
        [
          { type: 'weigh' as const, by: 'wt' },
          {
            type: 'declare-missing' as const,
            variables: ['wt'],
            codes: [{ code: '999', reason: 'other' as const }],
            rule: null,
          },
          { type: 'merge-codes' as const, variables: ['wt'], codes: ['4'], into: '3', rule: null },
        ].map((decision, i) => entryOf(decision, `e${i}`, new Date(0))),
      ),
    );
    expect(dig.weighted('x')).toMatchObject({ valid: 8, without: 1, rows: 3 });
  });

  it('adds up the weights of each code, and leaves rows without a weight out', async () => {
    const dig = await weighed(text, 'wt');
    expect(dig.weighted('x')).toMatchObject({
      weight: 'wt',
      valid: 5,
      rows: 4,
      without: 2,
      codes: [
        { code: '1', sum: 2, shareOfValid: 0.4 },
        { code: '2', sum: 3, shareOfValid: 0.6 },
      ],
    });
    expect((await weighed(text, 'wt', [1])).weighted('x')?.codes[1].sum).toBe(1);
  });

  it('is none by itself, without a ruling, or where the extract lacks it', async () => {
    expect((await weighed(text, 'wt')).weighted('wt')).toBeNull();
    expect((await weighed(text, null)).weighted('x')).toBeNull();
    expect((await weighed(text, 'gone')).weighted('x')).toBeNull();
  });

  it('draws what it counts, and gives weighted figures of measures', async () => {
    const dig = await weighed(`size,side,wt\n${NUMBERS}\n`, 'wt');
    const profile = await profileOf(dig, 'size');
    if (!profile) throw new Error('size');
    expect(profile.weighted?.statistics?.mean).toBeCloseTo(15, 10);
    expect(
      profile.picture.form === 'histogram' &&
        profile.picture.histogram.counts.reduce((sum, count) => sum + count, 0),
    ).toBe(120);
    expect(profile.variable.statistics.mean).toBeCloseTo(15, 10);
  });

  it('weights groups too, whose rows stay numbers of rows', async () => {
    const dig = await weighed(`size,side,wt\n${NUMBERS}\n`, 'wt');
    const found = await groupedBy(dig, 'side', null);
    const [first] = found?.groups ?? [];
    expect([found?.weight, first.rows, first.valid, first.base, first.counts]).toEqual([
      'wt',
      60,
      60,
      120,
      [60, 60],
    ]);
    const bySide = await groupedBy(dig, 'size', 'side');
    expect(bySide?.groups.map(({ summary }) => summary?.mean)).toEqual([15.5, 14.5]);
  });
});

describe('weighted figures', () => {
  const values = fc
    .uniqueArray(fc.integer({ min: -1000, max: 1000 }), { minLength: 2, maxLength: 20 })
    .map((all) => all.sort((a, b) => a - b));
  it('are the plain ones where every row weighs the same', () => {
    fc.assert(
      fc.property(
        values,
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 20, maxLength: 20 }),
        fc.double({ min: 0.01, max: 50, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (of, numbers, weight, p) => {
          const counts = of.map((_, i) => numbers[i]);
          const n = counts.reduce((sum, count) => sum + count, 0);
          const sums = { values: of, counts: counts.map((count) => count * weight) };
          expect(weightedQuantile(sums, n, p)).toBeCloseTo(quantile({ values: of, counts }, p) as number, 3);
          expect(weightedMoments(sums, n).mean).toBeCloseTo(
            moments({ values: of, counts }).mean as number,
            6,
          );
          expect(weightedMoments(sums, n).sd).toBeCloseTo(moments({ values: of, counts }).sd as number, 6);
        },
      ),
    );
  });

  it('follow Σw(x−m)² ÷ (Σw·(n−1)/n)', () => {
    const { mean, sd } = weightedMoments({ values: [1, 2, 4], counts: [1, 2, 5] }, 3);
    expect(mean).toBe(25 / 8);
    expect(sd).toBeCloseTo(
      Math.sqrt(((1 - 3.125) ** 2 + 2 * (2 - 3.125) ** 2 + 5 * (4 - 3.125) ** 2) / ((8 * 2) / 3)),
      12,
    );
    expect(weightedMoments({ values: [1], counts: [0] }, 0)).toEqual({ mean: null, sd: null });
    expect(weightedQuantile({ values: [], counts: [] }, 0, 0.5)).toBeNull();
  });

  it('never leave the range of the values, and rise with p', () => {
    fc.assert(
      fc.property(
        values,
        fc.array(fc.double({ min: 0.001, max: 9, noNaN: true }), { minLength: 20, maxLength: 20 }),
        (of, weights) => {
          const sums = { values: of, counts: of.map((_, i) => weights[i]) };
          const at = [0, 0.1, 0.25, 0.5, 0.75, 0.9, 1].map(
            (p) => weightedQuantile(sums, of.length, p) as number,
          );
          expect(at[0]).toBeGreaterThanOrEqual(of[0]);
          expect(at[6]).toBe(of[of.length - 1]);
          for (let i = 1; i < at.length; i++) expect(at[i]).toBeGreaterThanOrEqual(at[i - 1]);
        },
      ),
    );
  });
});
