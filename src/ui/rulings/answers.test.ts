import { beforeEach, describe, expect, it, vi } from 'vitest';
import { atPlace } from '../../core/extract/row-names';
import type { Flag } from '../../core/flags/rule';
import type { Decision } from '../../core/log/entries';
import {
  acceptUniverse,
  askArchive,
  declareMissing,
  isAboutCodes,
  isAboutRows,
  keepValid,
  mergeSpellings,
  setAside,
} from './answers';

const decided: Decision[] = [];
vi.mock('../../store/decisions', () => ({
  decide: async (decision: Decision) => void decided.push(decision),
  setRowsAside: async (rows: number[], rule: string) =>
    void decided.push({ type: 'set-aside', rows: rows.map(atPlace), rule }),
}));
beforeEach(() => void decided.splice(0));

const flag = (variable: string, part: Partial<Flag> = {}): Flag => ({
  rule: 'sentinel-code',
  variables: [variable],
  codes: ['9'],
  rows: 12,
  severity: 'high',
  certainty: 0.9,
  says: '12 rows hold 9',
  ...part,
});

describe('a ruling on a pattern', () => {
  it('declares the same codes missing in all its variables at once, other codes apart', async () => {
    await declareMissing(
      [flag('oft_a'), flag('oft_b'), flag('oft_c', { codes: ['8', '9'] })],
      () => 'refused',
      '  the guide  ',
    );
    expect(decided).toEqual([
      {
        type: 'declare-missing',
        variables: ['oft_a', 'oft_b'],
        codes: [{ code: '9', reason: 'refused' }],
        rule: 'sentinel-code',
        why: 'the guide',
      },
      {
        type: 'declare-missing',
        variables: ['oft_c'],
        codes: [
          { code: '8', reason: 'refused' },
          { code: '9', reason: 'refused' },
        ],
        rule: 'sentinel-code',
        why: 'the guide',
      },
    ]);
  });

  it('gives each code its own reason, where the evidence tells one', async () => {
    await declareMissing([flag('hours', { codes: ['997', '999'] })], (code) =>
      code === '999' ? 'not-asked' : 'refused',
    );
    expect(decided).toEqual([
      {
        type: 'declare-missing',
        variables: ['hours'],
        codes: [
          { code: '997', reason: 'refused' },
          { code: '999', reason: 'not-asked' },
        ],
        rule: 'sentinel-code',
      },
    ]);
  });

  it('has no reason where none was typed', async () => {
    await keepValid([flag('oft_a'), flag('oft_b')], '   ');
    expect(decided).toEqual([
      { type: 'keep-valid', variables: ['oft_a', 'oft_b'], codes: ['9'], rule: 'sentinel-code' },
    ]);
  });

  it('merges each spelling into the word it is another way to write', async () => {
    await mergeSpellings([
      flag('town', {
        rule: 'variant-spelling',
        codes: ['fenwater', 'Fenwatter', 'hawmoor'],
        into: { fenwater: 'Fenwater', Fenwatter: 'Fenwater', hawmoor: 'Hawmoor' },
      }),
    ]);
    expect(decided).toEqual([
      {
        type: 'merge-codes',
        variables: ['town'],
        codes: ['fenwater', 'Fenwatter'],
        into: 'Fenwater',
        rule: 'variant-spelling',
      },
      {
        type: 'merge-codes',
        variables: ['town'],
        codes: ['hawmoor'],
        into: 'Hawmoor',
        rule: 'variant-spelling',
      },
    ]);
  });

  it('sets each row aside once, and none where there are none', async () => {
    await setAside([
      flag('', { rule: 'duplicate-row', variables: [], codes: [], at: [4, 9] }),
      flag('', { rule: 'duplicate-row', variables: [], codes: [], at: [9, 12] }),
    ]);
    await setAside([flag('oft_a')]);
    expect(decided).toEqual([{ type: 'set-aside', rows: [4, 9, 12].map(atPlace), rule: 'duplicate-row' }]);
  });

  it('accepts the universe that the flag tells, its steps with it', async () => {
    const universe = {
      by: 'tenure',
      shut: ['1', '2'],
      steps: [{ by: 'boiler', codes: ['2'], asked: false }],
    };
    await acceptUniverse([
      flag('rent', { rule: 'universe-gate', variables: ['rent', 'tenure', 'boiler'], universe }),
      flag('oft_a'),
    ]);
    expect(decided).toEqual([{ type: 'accept-universe', variable: 'rent', ...universe }]);
  });

  it('asks only what is written', async () => {
    await askArchive([flag('oft_a'), flag('oft_b')], ' What is 9? ');
    await askArchive([flag('oft_a')], '  ');
    await askArchive([], 'What?');
    expect(decided).toEqual([
      {
        type: 'ask-archive',
        variables: ['oft_a', 'oft_b'],
        codes: ['9'],
        rule: 'sentinel-code',
        question: 'What is 9?',
      },
    ]);
  });
});

describe('what can answer a flag', () => {
  it('codes, where it is about codes of a variable; rows, where all of them are known and are none', () => {
    expect(
      [flag('a'), flag('a', { codes: [] }), flag('a', { rule: 'top-code' }), flag('', { variables: [] })].map(
        isAboutCodes,
      ),
    ).toEqual([true, false, false, false]);
    const rows = { rule: 'duplicate-row', variables: [], codes: [] };
    expect(isAboutRows(flag('', { ...rows, rows: 2, at: [1, 2] }))).toBe(true);
    expect(isAboutRows(flag('', { ...rows, rows: 2 }))).toBe(false);
    expect(isAboutRows(flag('', { ...rows, rows: 2, at: [1, 2], rule: 'gate-breach' }))).toBe(false);
    // Only the first thousand came with the flag; all are set aside.
    const many = { ...rows, rows: 1500, at: Array.from({ length: 1000 }, (_, row) => row), atAll: 1500 };
    expect(isAboutRows(flag('', many))).toBe(true);
  });
});
