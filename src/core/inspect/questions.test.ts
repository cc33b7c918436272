import { describe, expect, it } from 'vitest';
import { extractOf, labels, make, repeat } from '../../testing/made';
import { entryOf } from '../log/entries';
import { foldLog } from '../log/fold';
import { Inspector } from './inspect';
import { codesOf, effectsOf, holdingOf, likeOf, peekOf, understoodOf } from './questions';

const SCALE = { categories: labels({ 1: 'Never', 2: 'Sometimes', 3: 'Often' }) };
const dig = (): Inspector =>
  new Inspector(
    extractOf(
      {
        oft_a: [...repeat(50, 1), ...repeat(30, 2), ...repeat(15, 3), ...repeat(5, 9)],
        oft_b: [...repeat(40, 1), ...repeat(40, 2), ...repeat(20, 3)],
        town: [...repeat(60, 'Fenwater'), ...repeat(39, 'Hawmoor'), 'n/a'],
        kwh: make(100, (c) => c.whole(800, 2400)),
      },
      { oft_a: SCALE, oft_b: SCALE },
    ),
  );

describe('what is asked of an inspection', () => {
  it('codes of several variables, rows added up, in their own order where they are few', () => {
    expect(codesOf(dig(), ['oft_a', 'oft_b'])).toEqual([
      { code: '1', label: 'Never', count: 90, standing: 'valid' },
      { code: '2', label: 'Sometimes', count: 70, standing: 'valid' },
      { code: '3', label: 'Often', count: 35, standing: 'valid' },
      { code: '9', label: null, count: 5, standing: 'valid' },
    ]);
    const many = codesOf(dig(), ['kwh']);
    expect(many.map(({ count }) => count)).toEqual([...many.map(({ count }) => count)].sort((a, b) => b - a));
    expect(codesOf(dig(), ['gone'])).toEqual([]);
  });

  it('how a pasted list is understood, with the rows and what is declared already', () => {
    const inspector = dig();
    inspector.lay(
      foldLog([
        entryOf(
          {
            type: 'declare-missing',
            variables: ['oft_a'],
            codes: [{ code: '9', reason: 'refused' }],
            rule: null,
          },
          'a',
          new Date(0),
        ),
      ]),
    );
    expect(understoodOf(inspector, '1 Never\n9 Refused\n7 Other', ['oft_a'])).toMatchObject([
      { code: '1', label: 'Never', rows: 50, known: 'Never', declared: null },
      { code: '9', rows: 5, declared: 'refused' },
      { code: '7', rows: 0, known: null },
    ]);
  });

  it('what another kind would do, without doing it', () => {
    const inspector = dig();
    const [as] = effectsOf(inspector, ['town'], 'continuous');
    expect(as).toMatchObject({ name: 'town', storage: 'text', cells: 100, statistics: { mean: null } });
    expect(inspector.named('town')?.kind).toBe('nominal');
    expect(effectsOf(inspector, ['kwh'], 'nominal')[0].statistics.mean).toBeNull();
  });

  it('variables like one, by their codes and by their stem', () => {
    expect(likeOf(dig(), 'oft_a')).toEqual([
      { by: 'codes', says: 'the same list of codes', names: ['oft_a', 'oft_b'] },
      { by: 'stem', says: 'names that begin like oft_a', names: ['oft_a', 'oft_b'] },
    ]);
    expect(likeOf(dig(), 'kwh')).toEqual([]);
  });

  it('without a codebook, variables of one scale are alike, whatever codes for no answer each holds', () => {
    const scale = (...codes: number[]): (string | number)[] => [
      ...make(400, (c) => c.whole(0, 10)),
      ...codes.flatMap((code) => repeat(4, code)),
      ...repeat(9 - codes.length * 4 + 3, 5),
    ];
    const inspector = new Inspector(
      extractOf({
        trust: scale(88, 99),
        hope: scale(77),
        calm: scale(),
        kind: make(412, (c) => c.whole(1, 4)),
      }),
    );
    expect(likeOf(inspector, 'trust')).toEqual([
      { by: 'codes', says: 'the same list of codes', names: ['trust', 'hope', 'calm'] },
    ]);
  });

  it('the most frequent codes at a glance, and who holds a text', () => {
    expect(peekOf(dig(), 'town')).toMatchObject([
      { code: 'Fenwater', share: 0.6 },
      { code: 'Hawmoor', share: 0.39 },
      { code: 'n/a', share: 0.01 },
    ]);
    expect(holdingOf(dig(), ['n/a', '9'])).toEqual(
      new Map([
        ['n/a', ['town']],
        ['9', ['oft_a']],
      ]),
    );
  });
});
