import { describe, expect, it } from 'vitest';
import { chance } from '../../demo/random';
import { extractOf, labels, make, repeat, type Cells } from '../../testing/made';
import type { Flag } from '../flags/rule';
import { evidenceOf, type Evidence } from './evidence';
import { Inspector } from './inspect';

const evidence = async (
  columns: Record<string, Cells>,
  rule: string,
  entries = {},
): Promise<{ flag: Flag; found: Evidence }> => {
  const dig = new Inspector(extractOf(columns, entries));
  const flag = dig.flags.find((one) => one.rule === rule);
  const found = flag && (await evidenceOf(flag, dig));
  if (!flag || !found) throw new Error(`no ${rule} among ${dig.flags.map((one) => one.rule).join()}`);
  return { flag, found };
};

describe('the evidence of a flag', () => {
  it('marks the suspects in the distribution, between their neighbours, apart from the rest', async () => {
    const oft = [...make(300, (c) => c.whole(1, 5)), ...repeat(20, 9)];
    const { found } = await evidence(
      { oft_a: oft, oft_b: [...make(310, (c) => c.whole(1, 5)), ...repeat(10, 9)] },
      'sentinel-code',
      { oft_a: { categories: labels({ 1: 'Never', 2: 'Rarely', 3: 'Sometimes', 4: 'Often', 5: 'Always' }) } },
    );
    expect(found.bars.map(({ name, suspect, apart }) => [name[0], suspect, apart])).toEqual([
      ['1', false, false],
      ['2', false, false],
      ['3', false, false],
      ['4', false, false],
      ['5', false, false],
      ['9', true, true],
    ]);
    expect(found.bars.reduce((sum, { count }) => sum + count, 0)).toBe(found.base);
    expect(found.near.map(({ code, suspect }) => [code, suspect])).toEqual([
      ['4', false],
      ['5', false],
      ['9', true],
    ]);
    expect(found.siblings).toEqual([{ name: 'oft_b', label: null, rows: 10 }]);
    expect(found.codebook).toEqual([
      'It lists 5 codes: 1 Never, 2 Rarely, 3 Sometimes, 4 Often, 5 Always; 9 is not among them.',
    ]);
    expect(found.rows.map(({ row }) => row)).toEqual([300, 301, 302, 303]);
  });

  it('draws many values in stretches, the suspects each for itself; the parts add up to the base', async () => {
    const c = chance(4);
    const income = [
      ...Array.from({ length: 600 }, () => Math.round(1500 + 400 * c.normal())),
      ...repeat(30, 9998),
      ...repeat(25, 9999),
    ];
    const { flag, found } = await evidence({ income }, 'sentinel-code');
    expect([...flag.codes].sort()).toEqual(['9998', '9999']);
    expect(found.bars.filter(({ suspect }) => suspect).map(({ name, count }) => [name, count])).toEqual([
      ['9998', 30],
      ['9999', 25],
    ]);
    expect(found.bars.find(({ name }) => name === '9998')?.apart).toBe(true);
    expect(found.bars.length).toBeLessThan(50);
    expect(found.bars.reduce((sum, { count }) => sum + count, 0)).toBe(found.base);
  });

  it('shows words beside what most rows hold, and why they would be missing by their label', async () => {
    const { found } = await evidence(
      { fuel: [...repeat(90, 'Gas'), ...repeat(60, 'Oil'), ...repeat(30, 'Refused')] },
      'nonresponse-label',
    );
    expect(found.near[0]).toMatchObject({ code: 'Refused', suspect: true });
    expect(found.near.slice(1).map(({ code }) => code)).toEqual(['Gas', 'Oil']);
    const coded = await evidence({ q: make(300, (c) => c.whole(1, 4)) }, 'nonresponse-label', {
      q: { categories: labels({ 1: 'Yes', 2: 'No', 3: 'In part', 4: 'Refused' }) },
    });
    expect([...coded.found.reasons]).toEqual([['4', 'refused']]);
  });

  it('tells a code that stands just where the question was not asked from one that does not', async () => {
    const work = make(400, (c) => c.whole(1, 3));
    const hours = work.map((one, i) => (one !== 1 ? 999 : i % 12 === 0 ? 997 : 10 + (i % 50)));
    const told = await evidence({ work, hours }, 'sentinel-code');
    expect(told.flag.codes).toEqual(['997', '999']);
    expect(told.found.gates).toEqual([
      '999 stands just where the question was not asked; it was asked where work is 1.',
    ]);
    expect([...told.found.reasons]).toEqual([['999', 'not-asked']]);
    // Blank where it was not asked, and 99 anywhere else: the blanks have a gate, the code has none.
    const blank = work.map((one, i) => (one !== 1 ? '' : i % 9 === 0 ? 99 : 1 + (i % 7)));
    expect((await evidence({ work, blank }, 'sentinel-code')).found).toMatchObject({
      gates: [],
      reasons: new Map(),
    });
    const anywhere = work.map((_, i) => (i % 3 === 0 ? 999 : 10 + (i % 50)));
    expect((await evidence({ work, anywhere }, 'sentinel-code')).found.gates).toEqual([]);
  });

  it('tells no reason for a code whose label is an answer', async () => {
    const dig = new Inspector(
      extractOf(
        { oft: [...make(300, (c) => c.whole(1, 3)), ...repeat(9, 7)] },
        { oft: { categories: labels({ 1: 'Never', 2: 'Often', 3: 'Always', 7: 'Every day' }) } },
      ),
    );
    const flag: Flag = {
      rule: 'out-of-range',
      variables: ['oft'],
      codes: ['7'],
      rows: 9,
      severity: 'medium',
      certainty: 0.9,
      says: '9 rows hold 7',
    };
    expect((await evidenceOf(flag, dig))?.reasons.size).toBe(0);
  });

  it('takes over the reason that a sibling declares', async () => {
    const oft = (): Cells => [...make(300, (c) => c.whole(1, 5)), ...repeat(20, 9)];
    const entries = {
      oft_b: {
        categories: [
          { code: '9', label: 'Refused', missing: true, reason: 'refused' as const, frequency: null },
        ],
      },
    };
    const { flag, found } = await evidence(
      { oft_a: oft(), oft_b: oft(), oft_c: oft() },
      'sentinel-code',
      entries,
    );
    expect(flag.variables).toEqual(['oft_a']);
    expect([...found.reasons]).toEqual([['9', 'refused']]);
  });

  it('shows rows with what identifies them, where a flag is about rows', async () => {
    const id = make(200, (_, i) => `H${1000 + i}`);
    const boiler = make(200, (c) => c.whole(1, 2));
    const age = boiler.map((has, i) => (has === 1 || i === 0 ? 1 + (i % 9) : ''));
    boiler[0] = 2;
    const { flag, found } = await evidence({ id, boiler, age }, 'gate-breach');
    expect(flag.at).toEqual([0]);
    expect(found.rows).toMatchObject([
      {
        row: 0,
        cells: [
          { name: 'id', text: 'H1000' },
          { name: 'boiler', text: '2' },
          { name: 'age', text: '1' },
        ],
      },
    ]);
  });
});
