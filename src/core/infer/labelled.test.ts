import { describe, expect, it } from 'vitest';
import { extractOfJudged } from '../../testing/judged/judged';
import { STUDIES } from '../../testing/judged/studies';
import { Inspector } from '../inspect/inspect';

describe('an expert would agree', () => {
  const all = Object.entries(STUDIES);
  const judge = (seed: number) =>
    all.flatMap(([, judged]) => {
      const dig = new Inspector(extractOfJudged(judged, seed, 800));
      return judged.map((one) => ({ one, found: dig.named(one.name) }));
    });
  const right = ({ one, found }: ReturnType<typeof judge>[number]): boolean =>
    [one.kind].flat().includes(found?.kind ?? 'empty');
  const told = (wrong: ReturnType<typeof judge>): string[] =>
    wrong.map(
      ({ one, found }) =>
        `${one.name}: ${found?.kind} ${found?.confidence} (${found?.because.join('; ')}), not ${[one.kind].flat().join(' or ')}`,
    );

  it('with the kinds of at least 95 in 100 variables', () => {
    const found = judge(1);
    const wrong = found.filter((one) => !right(one));
    expect(wrong.length / found.length, told(wrong).join('\n')).toBeLessThanOrEqual(0.05);
  });

  it('with storage and role wherever they are telling', () => {
    const wrong = judge(2).filter(
      ({ one, found }) =>
        (one.storage && found?.written.storage !== one.storage) || (one.role && found?.role !== one.role),
    );
    expect(wrong.map(({ one, found }) => `${one.name}: ${found?.written.storage} ${found?.role}`)).toEqual(
      [],
    );
  });

  it('nine times in ten where it is nine tenths sure', () => {
    const sure = [3, 4, 5].flatMap(judge).filter(({ found }) => (found?.confidence ?? 0) >= 0.9);
    const wrong = sure.filter((one) => !right(one));
    expect(wrong.length / sure.length, told(wrong).join('\n')).toBeLessThanOrEqual(0.1);
  });

  it('and every kind comes with a reason or two', () => {
    for (const { one, found } of judge(6)) {
      expect(found?.because.length, one.name).toBeGreaterThanOrEqual(1);
      expect(found?.because.length, one.name).toBeLessThanOrEqual(4);
    }
  });
});
