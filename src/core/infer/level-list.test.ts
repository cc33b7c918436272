import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tallyTexts } from '../tally/tally';
import { Declarations } from './declared';
import { countsIn, levelAt, LevelArrays, valuesIn, type Level } from './level-list';
import { countsOf, rowsOf, validOf } from './levels';
import { readsAsNumber } from '../read/looks';
import { LOOK } from '../read/text-looks';
import { levelsOf } from './read-levels';
import { inferStorage } from './storage';

const someTexts = fc.array(
  fc.oneof(
    fc.constantFrom('1', '01', '1.0', '2', '-9', '', ' ', 'n/a', 'yes', 'No', '2020-02-01'),
    fc.double().map(String),
  ),
  { minLength: 1, maxLength: 60 },
);
function read(texts: readonly string[]): {
  arrays: LevelArrays;
  all: Level[];
  tally: ReturnType<typeof tallyTexts>;
} {
  const tally = tallyTexts(texts);
  const declarations = new Declarations(null, [{ code: '-9', reason: 'refused' }]);
  const arrays = levelsOf(tally, inferStorage(tally), declarations).levels;
  return { arrays, all: [...arrays], tally };
}

describe('levels as arrays', () => {
  it('answer whatever is asked as a list of the same levels does', () => {
    fc.assert(
      fc.property(
        someTexts,
        fc.integer({ min: -70, max: 70 }),
        fc.integer({ min: -70, max: 70 }),
        (texts, from, to) => {
          const { all } = read(texts);
          const fresh = read(texts).arrays;
          const few = ({ count }: Level): boolean => count < 2;
          expect(fresh.some(few)).toBe(all.some(few));
          expect(fresh.every(few)).toBe(all.every(few));
          expect(fresh.find(few)).toEqual(all.find(few));
          expect(fresh.filter(few)).toEqual(all.filter(few));
          expect(fresh.map(({ code }) => code)).toEqual(all.map(({ code }) => code));
          expect(fresh.codes).toEqual(all.map(({ code }) => code));
          expect(fresh.flatMap(({ spellings, code }) => [code, ...spellings])).toEqual(
            all.flatMap(({ spellings, code }) => [code, ...spellings]),
          );
          expect(fresh.reduce((sum, { count }, i) => sum + count * i, 0)).toBe(
            all.reduce((sum, { count }, i) => sum + count * i, 0),
          );
          expect([...fresh.slice(from, to)]).toEqual(all.slice(from, to));
          expect([...fresh.slice(from, to).slice(1)]).toEqual(all.slice(from, to).slice(1));
          expect(fresh.at(from)).toEqual(all.at(from));
          expect([...countsIn(fresh)]).toEqual([...countsIn(all)]);
          expect([...valuesIn(fresh)]).toEqual([...valuesIn(all)]);
          expect(all.map((_, i) => fresh.standing(i))).toEqual(all.map(({ standing }) => standing));
          expect(all.map((_, i) => fresh.label(i))).toEqual(all.map(({ label }) => label));
          const hasSign = (code: string): boolean => /[-.]/.test(code);
          const some = fresh.slice(from, to);
          expect(some.whereCode(hasSign).codes).toEqual(some.codes.filter(hasSign));
          expect(some.whereCode(hasSign, { some: LOOK.number, none: LOOK.marked }).codes).toEqual(
            some.codes.filter((code) => hasSign(code) && readsAsNumber(code) && !/[.,]/.test(code)),
          );
          expect(some.hasCodesWithin(3)).toBe(some.codes.every(({ length }) => length <= 3));
        },
      ),
    );
  });

  it('give the same level each time, in parts and parts of parts too', () => {
    const { arrays } = read(['1', '2', '2', '3', '-9', 'yes']);
    const third = levelAt(arrays, 2);
    expect(arrays.slice(1).at(1)).toBe(third);
    expect(arrays.where((place) => place > 0).at(1)).toBe(third);
    expect(
      arrays
        .where((place) => place > 0)
        .slice(1)
        .at(0),
    ).toBe(third);
    expect(arrays.find((level) => level === third)).toBe(third);
    expect([...arrays].indexOf(third)).toBe(2);
  });

  it('are counted again over other rows, without those that no row holds', () => {
    fc.assert(
      fc.property(someTexts, fc.infiniteStream(fc.integer({ min: 0, max: 3 })), (texts, stream) => {
        const { arrays, all } = read(texts);
        const counts = all.map(() => Number(stream.next().value));
        const expected = all.flatMap((level, i) => (counts[i] > 0 ? [{ ...level, count: counts[i] }] : []));
        expect([...arrays.recounted(counts)]).toEqual(expected);
        expect([...LevelArrays.from(all).recounted(counts)]).toEqual(expected);
        expect(arrays.recounted(arrays.counts)).toBe(arrays);
      }),
    );
  });

  it('hold every row of the tally, and the valid ones apart', () => {
    fc.assert(
      fc.property(someTexts, (texts) => {
        const tally = tallyTexts(texts);
        const levels = levelsOf(tally, inferStorage(tally), new Declarations(null));
        expect(rowsOf(levels.levels) + levels.blank).toBe(texts.length);
        const { levels: valid, others, rows, values } = validOf(levels);
        expect(valid.every(({ standing }) => standing === 'valid')).toBe(true);
        expect(others.some(({ standing }) => standing === 'valid')).toBe(false);
        expect(countsOf(levels)).toMatchObject({ valid: rows, distinct: valid.length, all: texts.length });
        expect([...values]).toEqual([...values].sort((a, b) => a - b));
      }),
    );
  });
});
