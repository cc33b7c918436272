import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tallyTexts } from '../tally/tally';
import { isMarker } from './nothing';
import { inferStorage } from './storage';

const numbers = (n: number, distinct: number): string[] =>
  Array.from({ length: n }, (_, i) => String(i % distinct));
const with_ = (base: readonly string[], ...stray: [string, number][]): string =>
  inferStorage(tallyTexts([...base, ...stray.flatMap(([text, n]) => Array<string>(n).fill(text))])).storage;

describe('numbers beside something else', () => {
  it('stay numbers where the rest is one or a few forms, up to half of the rows', () => {
    expect(with_(numbers(100, 40), ['s', 40])).toBe('integer');
    expect(with_(numbers(100, 40), ['<5', 30], ['withheld', 20])).toBe('integer');
    expect(with_(numbers(100, 40), ['s', 120])).toBe('text');
  });
  it('are words where the forms are many, or the numbers few', () => {
    expect(
      with_(
        numbers(100, 40),
        ...Array.from({ length: 12 }, (_, i): [string, number] => [`form ${'abcdefghijkl'[i]}`, 4]),
      ),
    ).toBe('text');
    expect(with_(numbers(100, 9), ['s', 40])).toBe('text');
  });
  it('marks for nothing count neither way, however many', () => {
    for (const mark of ['.', 'NA', '#N/A', '#DIV/0!', '.a', '.z', '***', 'TBD', '(null)']) {
      expect(isMarker(mark), mark).toBe(true);
      expect(with_(numbers(40, 20), [mark, 200]), mark).toBe('integer');
    }
    for (const word of ['oak', '.ab', '#1', 'nab', 'axe']) expect(isMarker(word), word).toBe(false);
  });
  it('are what they are whatever the order of the rows', () => {
    const all = [...numbers(60, 30), ...Array<string>(25).fill('s'), ...Array<string>(4).fill('n/k')];
    fc.assert(
      fc.property(fc.shuffledSubarray(all, { minLength: all.length }), (texts) => {
        expect(inferStorage(tallyTexts(texts)).storage).toBe('integer');
      }),
      { numRuns: 30 },
    );
  });
});
