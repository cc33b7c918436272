import { describe, expect, it } from 'vitest';
import { Inspector } from '../inspect/inspect';
import { entryOf } from '../log/entries';
import { foldLog } from '../log/fold';
import { extractOf, labels, make, repeat } from '../../testing/made';
import { patternsOf } from './patterns';
import { standingFrom } from '../log/standing';
import { fits, type StandingRule } from './standing-rules';

const rule = (code: string, reason: StandingRule['reason'], names = '*', note = ''): StandingRule => ({
  id: `${code} ${names}`,
  code,
  reason,
  names,
  note,
});
const age = [...make(300, (c) => c.whole(18, 90)), ...repeat(12, -8), ...repeat(9, -9)];
const warm = [...make(309, (c) => c.whole(1, 4)), ...repeat(12, -8)];
const degrees = make(321, (c) => (8 * c.normal()).toFixed(0));
const dig = (rules: StandingRule[], entries = {}): Inspector =>
  new Inspector(extractOf({ age, warm_a: warm, warm_b: warm, degrees }, entries), rules);
const proposed = (inspector: Inspector): [string, string, number, number][] =>
  inspector.flags
    .filter((flag) => flag.rule === 'standing-rule')
    .map(({ variables: [name], codes: [code], rows, certainty }) => [name, code, rows, certainty]);

describe('standing rules', () => {
  it('are proposals wherever a variable holds the code, one pattern each, and the other rules make way', () => {
    const inspector = dig([
      rule('-8', 'not-asked', '*', 'archive’s guide, page 4'),
      rule('-9', 'refused', 'age'),
    ]);
    const held = degrees.filter((cell) => cell === '-8').length;
    expect(proposed(inspector)).toEqual([
      ['age', '-8', 12, 0.95],
      ['warm_a', '-8', 12, 0.95],
      ['warm_b', '-8', 12, 0.95],
      ...(held ? [['degrees', '-8', held, 0.6]] : []),
      ['age', '-9', 9, 0.95],
    ]);
    expect(inspector.flags.filter((flag) => flag.rule === 'sentinel-code')).toEqual([]);
    expect(dig([]).flags.some((flag) => flag.rule === 'sentinel-code')).toBe(true);
    expect(inspector.flags.find((flag) => flag.rule === 'standing-rule')?.says).toBe(
      '12 rows hold -8, by your standing rule not asked (archive’s guide, page 4)',
    );
    expect(
      patternsOf(inspector.flags, new Map())
        .filter((pattern) => pattern.rule === 'standing-rule')
        .map(({ codes, flags }) => [codes[0], flags.length]),
    ).toEqual([
      ['-8', held ? 4 : 3],
      ['-9', 1],
    ]);
  });

  it('hold for the names they are about', () => {
    expect(proposed(dig([rule('-8', 'not-asked', 'warm_*')])).map(([name]) => name)).toEqual([
      'warm_a',
      'warm_b',
    ]);
    expect(fits('Warm_A', 'own_*, warm_?')).toBe(false);
    expect(fits('Warm_A', 'own_*, warm_*')).toBe(true);
    expect(fits('a.b', 'a.b')).toBe(true);
    expect(fits('axb', 'a.b')).toBe(false);
  });

  it('are doubted where the codebook calls the code an answer, and silent where it is declared', () => {
    const codes = { 1: 'Warm', 2: 'Cool', 3: 'Cold', 4: 'Very cold', '-8': 'No heating' };
    expect(
      proposed(dig([rule('-8', 'not-asked', 'warm_a')], { warm_a: { categories: labels(codes) } })),
    ).toEqual([['warm_a', '-8', 12, 0.6]]);
    const inspector = dig([rule('-8', 'not-asked', 'warm_*')]);
    inspector.lay(
      foldLog([
        entryOf(
          {
            type: 'declare-missing',
            variables: ['warm_a'],
            codes: [{ code: '-8', reason: 'not-asked' }],
            rule: 'standing-rule',
          },
          'a',
          new Date(0),
        ),
        entryOf(
          { type: 'keep-valid', variables: ['warm_b'], codes: ['-8'], rule: 'standing-rule' },
          'b',
          new Date(0),
        ),
      ]),
    );
    expect(proposed(inspector)).toEqual([]);
  });

  it('meet codes as the file writes them, and words', () => {
    const inspector = new Inspector(
      extractOf({
        hours: [
          ...make(200, (c) => (c.whole(10, 90) / 10).toFixed(1)),
          ...repeat(5, '-8.0'),
          ...repeat(4, 'n/a'),
        ],
      }),
      [rule('-8', 'not-asked'), rule('n/a', 'no-answer')],
    );
    expect(proposed(inspector).map(([, code, rows]) => [code, rows])).toEqual([
      ['-8.0', 5],
      ['n/a', 4],
    ]);
  });

  it('find again the variables that they come from, whatever signs their names have', () => {
    for (const name of ['Spent on, food', 'a.b', 'x*', '(q1)', 'weiß nicht', '__proto__']) {
      const [made] = standingFrom(
        [
          entryOf(
            {
              type: 'declare-missing',
              variables: [name],
              codes: [{ code: '9', reason: 'other' }],
              rule: null,
            },
            'a',
            new Date(0),
          ),
        ],
        [],
        () => 'x',
      );
      expect(fits(name, made.names), name).toBe(true);
      expect(fits('another', made.names), name).toBe(false);
    }
  });

  it('come from the rulings of an extract, those that are there already left out', () => {
    const log = [
      entryOf(
        {
          type: 'declare-missing',
          variables: ['a', 'b', 'c'],
          codes: [{ code: '-8', reason: 'not-asked' }],
          rule: null,
          why: 'the guide',
        },
        'a',
        new Date(0),
      ),
      entryOf(
        {
          type: 'declare-missing',
          variables: ['a'],
          codes: [
            { code: '-9', reason: 'refused' },
            { code: '-7', reason: 'other' },
          ],
          rule: null,
        },
        'b',
        new Date(0),
      ),
    ];
    expect(standingFrom(log, [rule('-7', 'other', 'a')], () => 'x')).toEqual([
      { id: 'x', code: '-8', reason: 'not-asked', names: '*', note: 'the guide' },
      { id: 'x', code: '-9', reason: 'refused', names: 'a', note: '' },
    ]);
  });
});
