import { describe, expect, it } from 'vitest';
import { readExtract } from '../intake/receive';
import { sourceOf } from '../read/source';
import { identityOf, patternOf } from './identity';
import { Inspector } from './inspect';
import { profileOf, type Profile } from './profile';

async function profiled(text: string): Promise<Profile> {
  const dig = new Inspector(await readExtract([{ source: sourceOf('i.csv', text) }]));
  const profile = await profileOf(dig, dig.variables[0].name);
  if (!profile) throw new Error('no variable');
  return profile;
}

describe('what identifiers look like', () => {
  it.each([
    ['RR-0031', 'AA-9999'],
    ['Üb7', 'Aa9'],
    ['1234567', '9×7'],
    ['x', 'a'],
    ['07/2', '99/9'],
    ['aaaaaaB', 'a×6 A'],
  ])('%s is %s', (text, pattern) => expect(patternOf(text)).toBe(pattern));

  it('counts patterns, and names what a sequence leaves out', async () => {
    const ids = Array.from({ length: 120 }, (_, i) => i + 1000).filter(
      (n) => ![1003, 1004, 1050].includes(n),
    );
    const profile = await profiled(`id,x\n${ids.map((n) => `${n},1`).join('\n')}\n`);
    expect(profile.identity).toEqual({
      patterns: [{ pattern: '9999', share: 1 }],
      more: 0,
      sequence: { missing: 3, first: [1003, 1004, 1050] },
    });
  });

  it('knows no sequence among words, or where most is left out', () => {
    const level = (code: string, value: number | null) => ({
      code,
      spellings: [],
      value,
      label: null,
      count: 1,
      standing: 'valid' as const,
      reason: null,
      declaredBy: null,
    });
    expect(identityOf([level('a1', null), level('a2', null)]).sequence).toBeNull();
    expect(identityOf([level('1', 1), level('900', 900)]).sequence).toBeNull();
    expect(identityOf(['a', 'A', '1', '-', '.', 'ab'].map((code) => level(code, null))).more).toBe(2);
  });
});

describe('gaps of dates', () => {
  const days = (months: string[]): string =>
    `when,x\n${months.flatMap((month) => Array.from({ length: 20 }, (_, i) => `${month}-${String(i + 1).padStart(2, '0')},${i}`)).join('\n')}\n`;
  it('are the months without rows between the first and the last', async () => {
    const { gaps } = await profiled(days(['2019-01', '2019-02', '2019-05', '2019-06', '2019-08']));
    expect(gaps).toEqual([
      { from: '2019-03', to: '2019-04', periods: 2 },
      { from: '2019-07', to: '2019-07', periods: 1 },
    ]);
  });
  it('are none where each month has some', async () =>
    expect((await profiled(days(['2019-01', '2019-02', '2019-03']))).gaps).toEqual([]));
});
