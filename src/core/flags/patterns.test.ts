import { describe, expect, it } from 'vitest';
import { patternsOf } from './patterns';
import type { Flag } from './rule';

const flag = (variable: string, part: Partial<Flag> = {}): Flag => ({
  rule: 'sentinel-code',
  variables: [variable],
  codes: ['9'],
  rows: 10,
  severity: 'high',
  certainty: 0.9,
  says: `10 rows hold 9 in ${variable}`,
  ...part,
});
const keys = (flags: Flag[], lists: Record<string, string> = {}): string[][] =>
  patternsOf(flags, new Map(Object.entries(lists))).map((pattern) =>
    pattern.flags.map(({ variables }) => variables[0]),
  );

describe('flags with one cause', () => {
  it('stand together: the same code in items of one stem or one list of codes', () => {
    expect(keys([flag('oft_a'), flag('oft_b'), flag('oft_c'), flag('rooms')])).toEqual([
      ['oft_a', 'oft_b', 'oft_c'],
      ['rooms'],
    ]);
    expect(
      keys([flag('tired'), flag('glad')], { tired: '1=Never|2=Often', glad: '1=Never|2=Often' }),
    ).toEqual([['tired', 'glad']]);
  });

  it('stand together though an item lacks one of several codes, the fullest first', () => {
    const found = patternsOf(
      [
        flag('oft_a', { codes: ['88', '99'] }),
        flag('oft_b', { codes: ['77', '88', '99'] }),
        flag('oft_c', { codes: ['77'] }),
        flag('oft_d', { codes: ['-1'] }),
      ],
      new Map(),
    );
    expect(found.map(({ flags, codes }) => [flags.map(({ variables: [name] }) => name), codes])).toEqual([
      [
        ['oft_b', 'oft_a', 'oft_c'],
        ['77', '88', '99'],
      ],
      [['oft_d'], ['-1']],
    ]);
    expect(found[0].says).toMatch(/^77, 88 or 99 in 3 variables: /);
  });

  it('stand apart: other codes, other rules, spellings of a word, rows', () => {
    expect(
      keys([flag('oft_a'), flag('oft_b', { codes: ['8'] }), flag('oft_c', { rule: 'out-of-range' })]),
    ).toHaveLength(3);
    expect(
      keys([
        flag('town_a', { rule: 'variant-spelling', into: { 9: '8' } }),
        flag('town_b', { rule: 'variant-spelling', into: { 9: '8' } }),
      ]),
    ).toHaveLength(2);
    expect(
      keys([
        flag('a_1', { rule: 'gate-breach', variables: ['a_1', 'g'], codes: [] }),
        flag('a_2', { rule: 'gate-breach', variables: ['a_2', 'g'], codes: [] }),
      ]),
    ).toHaveLength(2);
  });

  it('are one wherever they hold where the file was written so', () => {
    const blanks = (name: string, severity: Flag['severity']): Flag =>
      flag(name, {
        rule: 'stray-whitespace',
        codes: [` ${name}`],
        into: { [` ${name}`]: name },
        severity,
        says: 'blanks that do not show',
      });
    expect(keys([blanks('sex', 'low'), blanks('town', 'low'), blanks('fuel', 'medium')])).toEqual([
      ['fuel'],
      ['sex', 'town'],
    ]);
    expect(patternsOf([blanks('sex', 'low'), blanks('town', 'low')], new Map())[0].says).toBe(
      'stray-whitespace in 2 variables: blanks that do not show',
    );
  });

  it('come gravest first, and add up their rows', () => {
    const found = patternsOf(
      [flag('a', { severity: 'low', certainty: 0.99 }), flag('oft_a'), flag('oft_b', { severity: 'medium' })],
      new Map(),
    );
    expect(found.map(({ severity, rows }) => [severity, rows])).toEqual([
      ['high', 20],
      ['low', 10],
    ]);
    expect(found[0].says).toBe('9 in 2 variables: 10 rows hold 9 in oft_a');
  });
});
