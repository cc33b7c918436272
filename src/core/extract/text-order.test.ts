import fc from 'fast-check';
import { expect, it } from 'vitest';
import { inTextOrder } from './text-order';

const compared = (texts: readonly string[], places: readonly number[]): number[] =>
  [...places].sort((a, b) => (texts[a] < texts[b] ? -1 : 1));

const inOrder = (texts: readonly string[], places: readonly number[]): number[] => [
  ...inTextOrder(Uint32Array.from(places), texts),
];

/** Different texts out of few characters, so that many begin alike and some are the beginning of others. */
const many = (characters: string, n: number, seed: number): string[] => {
  let state = seed >>> 0;
  const next = (below: number): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
  const made = new Set<string>();
  while (made.size < n)
    made.add(Array.from({ length: next(14) }, () => characters[next(characters.length)]).join(''));
  return [...made];
};

it.each([
  ['few letters', 'ab'],
  ['letters with accents', 'abÿé '],
  ['letters of two bytes, and one that is two units', 'aŁ\uffff😀b'],
  ['signs and bytes of zero', '\u0000\u0001-z'],
])('puts many texts of %s in the order of their code units', (_, characters) => {
  fc.assert(
    fc.property(fc.nat(), (seed) => {
      const texts = many(characters, 3000, seed);
      const places = texts.map((_text, i) => i).filter((i) => i % 7 !== 0);
      expect(inOrder(texts, places)).toEqual(compared(texts, places));
    }),
    { numRuns: 12 },
  );
});

it('leaves what is in order as it is, and sorts few, long and falling ones by comparing', () => {
  const rising = many('abc', 3000, 1).sort((a, b) => (a < b ? -1 : 1));
  const places = rising.map((_, i) => i);
  expect(inOrder(rising, places)).toEqual(places);
  expect(inOrder(rising, [...places].reverse())).toEqual(places);
  const long = rising.map((text) => 'x'.repeat(100) + text).reverse();
  expect(inOrder(long, places)).toEqual([...places].reverse());
  expect(inOrder(['b', '', 'a'], [0, 1, 2])).toEqual([1, 2, 0]);
  expect(inOrder([], [])).toEqual([]);
});
