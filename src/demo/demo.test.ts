import { beforeAll, describe, expect, it } from 'vitest';
import { linkCodebooks } from '../core/codebook/link';
import { RULES, EXTRACT_RULES } from '../core/flags/registry';
import { Inspector } from '../core/inspect/inspect';
import { bring } from '../core/intake/bring';
import { readExtract } from '../core/intake/receive';
import { sourceOf } from '../core/read/source';
import { demoFiles, filesOf } from './files';
import { ITEMS, makePanel, type Panel } from './panel';

/** The demo's files of these names, read as one extract. */
async function read(...names: string[]): Promise<Inspector> {
  const wanted = demoFiles().filter(({ name }) => names.includes(name));
  const { brought, notices } = await bring(
    wanted.map(({ name, text }) => ({ key: name, source: sourceOf(name, text) })),
  );
  expect(notices).toEqual([]);
  const data = brought.filter((one) => one.what === 'data');
  const extract = await readExtract(data.map(({ source, look, layout }) => ({ source, look, layout })));
  return new Inspector(
    linkCodebooks(
      extract,
      brought.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : [])),
    ),
  );
}

describe('the demo panel', () => {
  let panel: Panel;
  let dig: Inspector;
  beforeAll(async () => {
    panel = makePanel();
    dig = await read(
      'upkeep_2019.csv',
      'upkeep_2020.csv',
      'upkeep_2021.csv',
      'upkeep_2022.csv',
      'upkeep.xml',
    );
  });

  it('is the same at every making, in four waves of 184 variables', () => {
    expect(makePanel({ rows: 900 }).waves).toEqual(makePanel({ rows: 900 }).waves);
    expect(dig.extract.rows).toBe(11_902);
    expect(dig.extract.variables).toHaveLength(184);
    expect(dig.extract.files.map(({ wave, rows }) => [wave, rows])).toEqual([
      ['2019', 3004],
      ['2020', 2962],
      ['2021', 2949],
      ['2022', 2987],
    ]);
    expect(dig.extract.wave).toEqual({ variable: 'wave', by: 'found' });
    expect(dig.notices).toEqual([]);
    expect(new Set(ITEMS.map(({ name }) => name)).size).toBe(184);
  });

  it('can be made larger and wider', () => {
    const large = makePanel({ rows: 400, variables: 2500 });
    expect(large.items).toHaveLength(2500);
    expect(new Set(large.items.map(({ name }) => name)).size).toBe(2500);
    expect(large.waves.reduce((sum, { rows, stray }) => sum + rows.length - stray.length, 0)).toBe(400);
    expect(large.waves.every(({ rows }) => rows.every((row) => row.length === 2500))).toBe(true);
  });

  it('keeps its households from wave to wave, so that an identifier stands once in a file and often in the panel', () => {
    expect(dig.named('hhid')).toMatchObject({ kind: 'identifier', role: 'identifier' });
    expect(dig.named('hhid')?.because).toContain(
      'no value repeats within a file, as the units of a panel do not',
    );
    const ids = panel.waves.map(({ rows }) => new Set(rows.map(([id]) => id)));
    expect([...ids[0]].filter((id) => ids[3].has(id)).length).toBeGreaterThan(1500);
  });

  // Which codes these name is told by the truth only where one was planted.
  const WHOLE = new Set([
    'universe-gate',
    'partly-labelled',
    'duplicate-identifier',
    'constant',
    'stray-whitespace',
  ]);
  const known = new Set([...RULES, ...EXTRACT_RULES].map(({ rule }) => rule));
  const rowsOf = (rows: { rows: number[] }[]): number => rows.reduce((sum, one) => sum + one.rows.length, 0);

  it('has its planted faults found, rule by rule, with their codes and rows', () => {
    for (const { rule, variables, codes, rows } of panel.truth.filter((fault) => known.has(fault.rule))) {
      const found = dig.flags.filter(
        (flag) => flag.rule === rule && flag.variables.join() === variables.join(),
      );
      expect(found.length, `${rule} on ${variables.join()}`).toBe(1);
      if (!WHOLE.has(rule))
        expect([...found[0].codes].sort(), `${rule} on ${variables.join()}`).toEqual([...codes].sort());
      if (rows.length) expect(found[0].rows, `${rule} on ${variables.join()}`).toBe(rowsOf(rows));
    }
  });

  it('has none of its clean variables accused', () => {
    const faulty = new Set(panel.truth.flatMap(({ variables }) => variables));
    expect(
      dig.flags.filter(
        ({ variables, severity }) =>
          severity !== 'note' && variables.length > 0 && !variables.some((name) => faulty.has(name)),
      ),
    ).toEqual([]);
    expect(ITEMS.filter(({ name }) => !faulty.has(name)).length).toBeGreaterThan(184 * 0.6);
  });

  it('writes down every fault where it stands', () => {
    const column = new Map(panel.items.map(({ name }, i) => [name, i]));
    const cells = new Map(panel.waves.map(({ year, rows }) => [year, rows]));
    for (const {
      rule,
      variables: [variable],
      codes,
      rows,
    } of panel.truth) {
      for (const { wave, rows: places } of rows) {
        for (const row of places) {
          const cell = cells.get(wave)?.[row]?.[column.get(variable) ?? 0];
          expect(cell, `${rule} ${variable} ${wave} ${row}`).toBeDefined();
          if (codes.length) expect(codes).toContain(cell);
        }
      }
    }
    const rules = new Set(panel.truth.map(({ rule }) => rule));
    expect(rules.size).toBeGreaterThanOrEqual(30);
  });

  it('has the kinds and roles that its makers meant', () => {
    const meant: Record<string, string> = {
      hhid: 'identifier',
      intdate: 'date',
      intdmy: 'date',
      parish: 'nominal',
      town: 'nominal',
      hhsize: 'count',
      age: 'continuous',
      tenure: 'nominal',
      built: 'ordinal',
      educ: 'ordinal',
      rooms: 'count',
      fuel: 'nominal',
      incband: 'ordinal',
      income: 'continuous',
      savings: 'continuous',
      colddeg: 'continuous',
      own_wash: 'nominal',
      yrs_wash: 'continuous',
      boil_mk: 'nominal',
      rep_cost: 'continuous',
      rep_date: 'date',
      km_shop: 'continuous',
      toss_1: 'nominal',
      toss_oth: 'text',
      oft_a: 'ordinal',
      agr_c: 'ordinal',
      sat_d: 'ordinal',
      worry_1: 'ordinal',
      missed: 'text',
      wt_hh: 'continuous',
      spare1: 'empty',
      cluster: 'nominal',
      stratum: 'nominal',
    };
    expect(Object.fromEntries(Object.keys(meant).map((name) => [name, dig.named(name)?.kind]))).toEqual(
      meant,
    );
    const roles: Record<string, string> = {
      hhid: 'identifier',
      wave: 'wave',
      stratum: 'design',
      cluster: 'design',
      wt_hh: 'weight',
      wt_pop: 'weight',
      z_inc: 'imputation',
      fileid: 'admin',
      seqno: 'admin',
      age: 'analysis',
    };
    expect(Object.fromEntries(Object.keys(roles).map((name) => [name, dig.named(name)?.role]))).toEqual(
      roles,
    );
  });

  it('has in fixed width the same cells, by the places and decimals of its own codebook', async () => {
    const twin = await read('upkeep_2022_fixed.dat', 'upkeep_2022_fixed.xml');
    expect(twin.extract.files[0]).toMatchObject({ form: 'fixed-width', rows: 2987, columns: 184 });
    const wave = await read('upkeep_2022.csv', 'upkeep_2022_fixed.xml');
    for (const name of ['rep_cost', 'km_shop', 'wt_hh', 'age', 'income']) {
      const [a, b] = [twin.named(name), wave.named(name)];
      expect(a?.counts, name).toEqual(b?.counts);
      expect(
        a?.levels.levels.map(({ value, count }) => [value, count]),
        name,
      ).toEqual(b?.levels.levels.map(({ value, count }) => [value, count]));
    }
    expect(
      twin.flags.filter(({ rule }) => rule === 'codebook-mismatch').map(({ variables }) => variables[0]),
    ).toEqual(['coldroom', 'rep_who', 'toss_3']);
  });

  it('publishes frequencies that its data have', () => {
    const tenure = dig.named('tenure');
    const published = tenure?.entry?.categories.map(({ code, frequency }) => [code, frequency]);
    expect(published).toEqual(
      tenure?.levels.levels
        .filter(({ code, standing }) => code !== '7' && standing !== 'unreadable')
        .map(({ code, count }) => [code, count]),
    );
  });

  it('is handed out as delimited text that needs quotes only where cells do', () => {
    const [first] = filesOf({
      items: panel.items.slice(0, 2),
      waves: [
        {
          year: 2019,
          stray: [],
          rows: [
            ['a, b', 'c'],
            ['say "x"', ' y'],
            ['1', '2'],
          ],
        },
      ],
      truth: [],
    });
    expect(first.text).toBe('hhid,wave\r\n"a, b",c\r\n"say ""x"""," y"\r\n1,2\r\n');
  });
});
