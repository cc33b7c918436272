import fc from 'fast-check';
import { expect, it } from 'vitest';
import { affinitiesOf } from './affinities';
import { affinity, commonOf } from './affinity';
import { partsOf } from './names';
import { TOPICS } from './topics';
import { PURPOSES, type Trait } from './traits';

const one = <T>(...of: T[]): fc.Arbitrary<T> => fc.constantFrom(...of);
const some = one(null, null, 'x', 'y');
const topic = one(...Object.keys(TOPICS).slice(0, 6));

/** Variables that share some things of every sort with some others. */
const traits: fc.Arbitrary<Trait[]> = fc
  .array(
    fc.record({
      name: one('a1', 'a2', 'b_one', 'b_two', 'b_sum', 'income', 'inc_tot', 'v17', 'v18', 'wt'),
      words: fc.uniqueArray(one('rent', 'home', 'work', 'often', 'bread')),
      lead: some,
      question: some,
      topics: fc.uniqueArray(fc.tuple(topic, fc.double({ min: 0.1, max: 2, noNaN: true })), {
        selector: ([name]) => name,
      }),
      codes: some,
      form: one('nominal integer', 'continuous decimal', 'text text'),
      universe: some,
      gate: one(null, null, 'a1', 'v17'),
      blanks: some,
      purpose: one(...PURPOSES, null, null),
    }),
    { minLength: 2, maxLength: 30 },
  )
  .map((all) =>
    all.map(({ name, words, topics, ...rest }, at) => ({
      ...rest,
      at,
      name: `${name}${at % 3}`,
      parts: partsOf(`${name}${at % 3}`),
      words: new Map(words.map((word) => [word, word])),
      topics: new Map(topics),
      norm: Math.sqrt(topics.reduce((sum, [, weight]) => sum + weight * weight, 0)),
      codesCount: 5,
      labelled: words.length > 0,
      dated: false,
    })),
  );

it('units are as alike as all pairs of their speakers are on average, to the last bit', () => {
  fc.assert(
    fc.property(traits, fc.infiniteStream(fc.nat(2)), fc.double({ min: 0, max: 1 }), (all, sizes, order) => {
      const common = { ...commonOf(all), order };
      // Units of one or two speakers, which may stand far from each other.
      const left = [...all];
      const units: Trait[][] = [];
      for (const size of sizes) {
        if (left.length === 0) break;
        const first = left.shift() as Trait;
        units.push(size === 2 && left.length ? [first, ...left.splice(left.length >> 1, 1)] : [first]);
      }
      const table = affinitiesOf(
        units.map((unit) => unit.map(({ at }) => common.compared[at])),
        common,
      );
      const n = units.length;
      units.forEach((own, i) =>
        units.forEach((others, j) => {
          if (i >= j) return expect(table[i * n + j]).toBe(i === j ? 0 : table[j * n + i]);
          let sum = 0;
          for (const a of own) for (const b of others) sum += affinity(a, b, common);
          expect(table[i * n + j]).toBe(Math.fround(sum / (own.length * others.length)));
        }),
      );
    }),
    { numRuns: 400 },
  );
});
