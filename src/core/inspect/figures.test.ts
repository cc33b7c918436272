import fc from 'fast-check';
import { expect, it } from 'vitest';
import { LevelArrays, type Level } from '../infer/level-list';
import { mostFrequent } from './figures';

const counts = fc.array(
  fc.oneof(fc.integer({ min: 1, max: 4 }), fc.constantFrom(1, 70_000), fc.constantFrom(0.5, 2.25)),
  { maxLength: 60 },
);

it('the most frequent levels are the first of all in the order of their counts, the earlier first of the same', () => {
  fc.assert(
    fc.property(counts, fc.integer({ min: 1, max: 50 }), (rows, most) => {
      const levels = rows.map((count, i): Level => ({
        code: `c${i}`,
        spellings: [],
        value: null,
        label: null,
        count,
        standing: 'valid',
        reason: null,
        declaredBy: null,
      }));
      const wanted = [...levels].sort((a, b) => b.count - a.count).slice(0, most);
      for (const list of [levels, LevelArrays.from(levels)])
        expect(mostFrequent(list, most).map(({ code }) => code)).toEqual(wanted.map(({ code }) => code));
    }),
  );
});
