import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tallyTexts } from '../tally/tally';
import { Declarations } from './declared';
import { countsOf, spellingsOf, type Levels } from './levels';
import { levelsOf } from './read-levels';
import { mergeLevels, withoutCells } from './relevel';
import { inferStorage, type Written } from './storage';

function read(texts: string[]): { levels: Levels; written: Written; declarations: Declarations } {
  const tally = tallyTexts(texts);
  const written = inferStorage(tally, {});
  const declarations = new Declarations(null);
  return { levels: levelsOf(tally, written, declarations), written, declarations };
}
const cells = fc.array(fc.constantFrom('1', '2', '3', '4', '10', '10.0', ''), {
  minLength: 1,
  maxLength: 60,
});

describe('levels of which some count for another', () => {
  const codes = fc.constantFrom('1', '2', '3', '10', '7', 'gone');
  it('hold as many rows as before, no text twice, and numbers in order', () => {
    fc.assert(
      fc.property(cells, fc.array(fc.tuple(codes, codes), { maxLength: 6 }), (texts, pairs) => {
        const { levels, written, declarations } = read(texts);
        const merged = mergeLevels(
          levels,
          new Map(pairs.filter(([from, into]) => from !== into)),
          written,
          declarations,
        );
        expect(countsOf(merged).all).toBe(countsOf(levels).all);
        expect(merged.levels.reduce((sum, { count }) => sum + count, merged.blank)).toBe(texts.length);
        const held = merged.levels.flatMap((level) => [...spellingsOf(level)]);
        expect(new Set(held).size).toBe(held.length);
        const values = merged.levels.flatMap(({ value }) => value ?? []);
        expect(values).toEqual([...values].sort((a, b) => a - b));
      }),
      { numRuns: 2000 },
    );
  });

  it('are as they were without any, and where nothing is held', () => {
    const { levels, written, declarations } = read(['1', '2', '2']);
    expect(mergeLevels(levels, new Map(), written, declarations)).toBe(levels);
    const same = mergeLevels(levels, new Map([['8', '1']]), written, declarations);
    expect([same.rows, same.blank, ...same.levels]).toEqual([levels.rows, levels.blank, ...levels.levels]);
  });

  it('that count for each other in a circle lose no row', () => {
    const { levels, written, declarations } = read(['1', '2', '2', '3']);
    const merged = mergeLevels(
      levels,
      new Map([
        ['1', '2'],
        ['2', '1'],
      ]),
      written,
      declarations,
    );
    expect(merged.levels.reduce((sum, { count }) => sum + count, 0)).toBe(4);
    const led = mergeLevels(
      levels,
      new Map([
        ['1', '2'],
        ['2', '3'],
        ['3', '2'],
      ]),
      written,
      declarations,
    );
    expect(led.levels.reduce((sum, { count }) => sum + count, 0)).toBe(4);
  });
});

describe('levels without some rows', () => {
  it('hold what is left, and no level without a row', () => {
    fc.assert(
      fc.property(cells, fc.nat(), (texts, n) => {
        const { levels } = read(texts);
        const gone = texts.slice(0, n % (texts.length + 1));
        const out = new Map<string, number>();
        for (const text of gone) out.set(text, (out.get(text) ?? 0) + 1);
        const left = withoutCells(levels, out);
        expect(left.rows).toBe(texts.length - gone.length);
        expect(left.levels.reduce((sum, { count }) => sum + count, left.blank)).toBe(left.rows);
        expect(left.levels.every(({ count }) => count > 0)).toBe(true);
      }),
    );
  });
});
