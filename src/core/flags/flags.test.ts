import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type CodebookEntry, type Extract } from '../extract/extract';
import { Inspector } from '../inspect/inspect';
import { entryOf } from '../log/entries';
import { entryText } from '../log/entry-text';
import { foldLog } from '../log/fold';
import type { Flag } from './rule';
import { extractOf, flagsOf } from '../../testing/made';
import { bareForm, oneSlipApart } from './writing/variant-spelling';

const codesOf = (...args: Parameters<typeof flagsOf>): string[] =>
  flagsOf(...args)
    .flatMap(({ codes }) => codes)
    .sort();
/** Values in a made-up but fixed order. */
const spread = <T = number>(n: number, value: (i: number) => T): T[] =>
  Array.from({ length: n }, (_, i) => value((i * 7919) % n));
const repeat = <T>(n: number, value: T): T[] => Array<T>(n).fill(value);
const labels = (list: Record<string, string>): CodebookEntry['categories'] =>
  Object.entries(list).map(([code, label]) => ({
    code,
    label,
    missing: false,
    reason: null,
    frequency: null,
  }));
const FIVE = labels({ 1: 'Never', 2: 'Rarely', 3: 'Sometimes', 4: 'Often', 5: 'Always' });

describe('sentinel-code finds', () => {
  it.each<[string, (string | number)[], Partial<CodebookEntry> | undefined, string[]]>([
    ['99 among rooms 1–12', [...spread(300, (i) => 1 + (i % 12)), ...repeat(20, 99)], undefined, ['99']],
    ['9 beyond a scale 1–5', [...spread(300, (i) => 1 + (i % 5)), ...repeat(9, 9)], undefined, ['9']],
    [
      '8 and 9 beyond a labelled scale',
      [...spread(300, (i) => 1 + (i % 5)), ...repeat(9, 9), ...repeat(9, 8)],
      { categories: FIVE },
      ['8', '9'],
    ],
    [
      '9 beyond 1–7 where the codebook lists 1–7',
      [...spread(300, (i) => 1 + (i % 7)), ...repeat(9, 9)],
      { categories: [...FIVE, ...labels({ 6: 'F', 7: 'G' })] },
      ['9'],
    ],
    [
      '99999 beyond skewed incomes',
      [...spread(400, (i) => Math.round(300 * Math.exp(i / 100))), ...repeat(30, 99999)],
      { label: 'Income' },
      ['99999'],
    ],
    [
      '-8 and -1 in years',
      [...spread(300, (i) => i % 35), ...repeat(10, -8), ...repeat(10, -1)],
      { label: 'Age of the boiler (years)' },
      ['-1', '-8'],
    ],
    [
      '99.9 among kilometres',
      [...spread(300, (i) => (i % 90) / 3 + 0.1).map((x) => x.toFixed(1)), ...repeat(12, '99.9')],
      undefined,
      ['99.9'],
    ],
    [
      '0 among years of building',
      [...spread(300, (i) => 1900 + (i % 120)), ...repeat(15, 0)],
      undefined,
      ['0'],
    ],
    [
      '997, 998 and 999 together',
      [...spread(300, (i) => i % 60), ...repeat(5, 997), ...repeat(6, 998), ...repeat(7, 999)],
      undefined,
      ['997', '998', '999'],
    ],
    [
      '9998 in the midst of large values',
      [...spread(3000, (i) => i * 7), ...repeat(60, 9998)],
      undefined,
      ['9998'],
    ],
    [
      'a code labelled as no answer and not declared missing',
      [...spread(300, (i) => 1 + (i % 5)), ...repeat(9, 6)],
      { categories: [...FIVE, ...labels({ 6: "Can't say" })] },
      ['6'],
    ],
    ['9 beside 0 and 1', [...spread(300, (i) => i % 2), ...repeat(8, 9)], undefined, ['9']],
    [
      'one digit throughout beyond 0–10',
      [
        ...spread(440, (i) => i % 11),
        ...repeat(30, 66),
        ...repeat(4, 77),
        ...repeat(9, 88),
        ...repeat(2, 99),
      ],
      undefined,
      ['66', '77', '88', '99'],
    ],
    [
      'codes that count down from 9999',
      [
        ...spread(400, (i) => 300 + (i % 400) * 2),
        ...repeat(9, 9994),
        ...repeat(14, 9998),
        ...repeat(5, 9999),
      ],
      undefined,
      ['9994', '9998', '9999'],
    ],
    [
      '95 and 97 to 99 beyond 1–4',
      [
        ...spread(400, (i) => 1 + (i % 4)),
        ...repeat(3, 95),
        ...repeat(2, 97),
        ...repeat(7, 98),
        ...repeat(9, 99),
      ],
      undefined,
      ['95', '97', '98', '99'],
    ],
    [
      '7 and 9 with holes between, after a scale 1–5',
      [...spread(900, (i) => 1 + (i % 5)), ...repeat(6, 7), ...repeat(8, 9)],
      undefined,
      ['7', '9'],
    ],
    [
      '777 and 888 among heights',
      [...spread(600, (i) => 150 + (i % 45)), ...repeat(9, 777), ...repeat(7, 888)],
      { label: 'Height (cm)' },
      ['777', '888'],
    ],
    [
      '-1 and -2 below a count that is cut off at zero',
      [
        ...repeat(300, 0),
        ...repeat(250, 1),
        ...repeat(140, 2),
        ...repeat(50, 3),
        ...repeat(12, 4),
        ...repeat(12, -1),
        ...repeat(5, -2),
      ],
      undefined,
      ['-1', '-2'],
    ],
    [
      '-9 that many rows hold, below amounts that hardly repeat',
      [...repeat(60, '0.00'), ...spread(500, (i) => (12 + i * 1.37).toFixed(2)), ...repeat(12, '-9')],
      undefined,
      ['-9'],
    ],
    [
      '-1 among minutes in tens',
      [...repeat(60, 0), ...spread(500, (i) => 10 * (i % 24)), ...repeat(7, -1)],
      undefined,
      ['-1'],
    ],
    [
      '0 above values that all lie far below it',
      [...spread(500, (i) => (-1.7 - i / 1000).toFixed(4)), ...repeat(6, 0)],
      undefined,
      ['0'],
    ],
    [
      '99999 near the end of a long tail',
      [
        ...spread(900, (i) => Math.round(40 * Math.exp(i / 110))),
        ...repeat(80, 99999),
        104000,
        131000,
        152000,
      ],
      undefined,
      ['99999'],
    ],
  ])('%s', (_, texts, entry, codes) => {
    expect(codesOf(texts, entry)).toEqual(codes);
  });
});

describe('sentinel-code leaves alone', () => {
  it.each<[string, (string | number)[], Partial<CodebookEntry> | undefined]>([
    [
      '9 and 10 as ends of a scale 0–10',
      spread(300, (i) => i % 11),
      { categories: labels({ 0: 'Not at all', 10: 'Completely' }) },
    ],
    ['9 as the end of 0–9', spread(300, (i) => i % 10), undefined],
    ['-1 in a temperature', spread(300, (i) => (i % 30) - 8), { label: 'Temperature (degrees)' }],
    [
      'a lone -1 in a temperature',
      [...spread(300, (i) => i % 30), -1, -1],
      { label: 'Temperature of the coldest room (degrees)' },
    ],
    [
      'a quantity that runs out below zero',
      [-3, -2, -2, -1, -1, -1, ...repeat(5, 0), ...repeat(9, 1), ...spread(300, (i) => 2 + (i % 20))],
      undefined,
    ],
    ['99 in a count that reaches 150', spread(450, (i) => i % 151), undefined],
    ['97, 98 and 99 as ages', spread(990, (i) => 17 + (i % 83)), { label: 'Age (years)' }],
    [
      '0 as a real zero',
      [...repeat(200, 0), ...spread(300, (i) => 20 + i)],
      { label: 'Spent on repairs (crowns)' },
    ],
    [
      '9 that the codebook labels as an answer',
      [...spread(300, (i) => 1 + (i % 5)), ...repeat(20, 9)],
      { categories: [...FIVE, ...labels({ 9: 'Other' })] },
    ],
    [
      'an irregular code list that is right',
      spread(300, (i) => [10, 20, 31, 45, 77, 99][i % 6]),
      { categories: labels({ 10: 'a', 20: 'b', 31: 'c', 45: 'd', 77: 'e', 99: 'Elsewhere' }) },
    ],
    [
      'a skewed tail that is real',
      spread(400, (i) => Math.round(300 * Math.exp(i / 80))),
      { label: 'Income' },
    ],
    ['0/1 items', spread(300, (i) => i % 2), undefined],
    [
      'a count that runs out with holes',
      [...repeat(300, 0), ...repeat(200, 1), ...repeat(90, 2), ...repeat(25, 3), ...repeat(6, 4), 5, 5, 7, 9],
      undefined,
    ],
    ['a list of codes with a hole here and there', spread(600, (i) => [1, 2, 3, 5, 7, 9][i % 6]), undefined],
    [
      'prices that end in nine',
      spread(600, (i) => [9, 19, 29, 49, 99, 149, 199, 299, 499, 999][i % 10]),
      undefined,
    ],
    [
      'the best marks of a hundred, some of them missing',
      [...spread(400, (i) => 40 + (i % 50)), 91, 92, 92, 94, 97, 99, 99],
      undefined,
    ],
    ['77 as an age', [...spread(800, (i) => 16 + (i % 58)), 75, 77, 77], undefined],
    [
      'a top code without a gap',
      [...spread(300, (i) => 17 + (i % 73)), ...repeat(40, 90)],
      { label: 'Age (years)' },
    ],
    ['identifiers that end in 99', spread(300, (i) => 100 + i), undefined],
    [
      'a code that the codebook declares missing',
      [...spread(300, (i) => 1 + (i % 5)), ...repeat(9, 9)],
      {
        categories: [
          ...FIVE,
          { code: '9', label: 'No answer', missing: true, reason: 'no-answer', frequency: null },
        ],
      },
    ],
  ])('%s', (_, texts, entry) => {
    expect(
      flagsOf(texts, entry).filter(({ rule }) => rule === 'sentinel-code' || rule === 'far-out-value'),
    ).toEqual([]);
  });
});

describe('sentinel-code', () => {
  const scale = spread(300, (i) => 1 + (i % 5)).map(String);
  it('weighs what the siblings hold', () => {
    const nine = [...scale.slice(0, 290), ...repeat(10, '9')];
    const alone = new Inspector(extractOf({ oft_a: nine })).flags[0];
    const together = new Inspector(
      extractOf({ oft_a: nine, oft_b: nine, oft_c: nine, oft_d: scale }),
    ).flags.find(({ variables }) => variables[0] === 'oft_a');
    expect(together?.certainty).toBeGreaterThan(alone.certainty);
  });

  it('finds -1 and -2 right before a scale from 0, where the siblings hold them too', () => {
    const trust = (shift: number): string[] =>
      [...spread(400, (i) => (i + shift) % 11), ...repeat(6, -1), ...repeat(5, -2)].map(String);
    const dig = new Inspector(
      extractOf({ trust_a: trust(0), trust_b: trust(3), trust_c: trust(5), trust_d: trust(8) }),
    );
    expect(dig.flags.filter(({ rule }) => rule === 'sentinel-code').map(({ codes }) => codes)).toEqual(
      repeat(4, ['-2', '-1']),
    );
    const change = (shift: number): string[] => spread(400, (i) => ((i + shift) % 11) - 5).map(String);
    expect(
      new Inspector(
        extractOf({ change_a: change(0), change_b: change(2), change_c: change(4) }),
      ).flags.filter(({ rule }) => rule === 'sentinel-code'),
    ).toEqual([]);
  });

  it('says codes, rows and evidence', () => {
    expect(flagsOf([...spread(300, (i) => 1 + (i % 12)), ...repeat(40, 99)])[0]).toMatchObject({
      rule: 'sentinel-code',
      variables: ['x'],
      codes: ['99'],
      rows: 40,
      severity: 'high',
      says: expect.stringMatching(/^40 rows hold 99: 99 stands 87 above the next value/) as string,
    });
  });

  it('does not depend on the order of the rows, and clean rows add no flag', () => {
    const clean = spread(200, (i) => 1 + (i % 6));
    fc.assert(
      fc.property(fc.shuffledSubarray([...clean, ...repeat(8, 99)], { minLength: 208 }), (shuffled) => {
        expect(flagsOf(shuffled)).toEqual(flagsOf([...clean, ...repeat(8, 99)]));
      }),
      { numRuns: 20 },
    );
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 6 }), { maxLength: 200 }), (more) => {
        expect(flagsOf([...clean, ...more])).toEqual([]);
      }),
      { numRuns: 50 },
    );
  });
});

describe('variant-spelling', () => {
  const towns = [
    ...repeat(120, 'Quillmere'),
    ...repeat(90, 'Fenwater'),
    ...repeat(80, 'Upper Tarn'),
    ...repeat(70, 'Lower Tarn'),
  ];
  it.each([
    ['case', 'quillmere'],
    ['punctuation', 'Upper-Tarn'],
    ['an accent', 'Quillmére'],
    ['a letter too few', 'Quilmere'],
    ['a letter too many', 'Fennwater'],
    ['another letter', 'Fenwatar'],
    ['two letters swapped', 'Quillmeer'],
  ])('finds a rare form that differs in %s', (_, variant) => {
    const [flag, ...others] = flagsOf([...towns, variant, variant], undefined, 'town');
    expect(others).toEqual([]);
    expect(flag).toMatchObject({ rule: 'variant-spelling', codes: [variant], rows: 2, severity: 'medium' });
  });

  it.each([
    ['white space at the end', 'Quillmere '],
    ['doubled white space', 'Upper  Tarn'],
    ['a no-break space', 'Upper\u00a0Tarn'],
  ])('leaves what differs only in %s to the rule about blanks', (_, variant) => {
    expect(flagsOf([...towns, variant, variant], undefined, 'town')).toMatchObject([
      { rule: 'stray-whitespace', codes: [variant], rows: 2, severity: 'medium' },
    ]);
    expect(
      flagsOf([...towns, variant, variant, 'quillmere'], undefined, 'town').map(({ rule }) => rule),
    ).toContain('variant-spelling');
  });

  it('gathers all forms of one word in one flag', () => {
    const flags = flagsOf([...towns, 'quillmere', 'QUILLMERE', 'Quilmere', 'Fenwatre'], undefined, 'town');
    expect(flags.map(({ codes }) => codes.length).sort()).toEqual([1, 3]);
  });

  it.each([
    [
      'words that are as frequent',
      [...repeat(50, 'Marlow'), ...repeat(60, 'Harlow'), ...repeat(50, 'Fenwater')],
    ],
    ['short words', [...repeat(90, 'gas'), ...repeat(3, 'gad'), ...repeat(50, 'oil')]],
    [
      'names that differ by a digit',
      [...repeat(90, 'Ward No 1'), ...repeat(3, 'Ward No 2'), ...repeat(50, 'Ward No 3')],
    ],
    ['free text', Array.from({ length: 80 }, (_, i) => `the old radio of neighbour ${i % 79}`)],
    ['identifiers', Array.from({ length: 80 }, (_, i) => `AB${1000 + i}`)],
    ['numbers with points', [...repeat(90, 'v1.5'), ...repeat(40, 'v15'), ...repeat(50, 'v2')]],
  ])('leaves alone %s', (_, texts) => {
    expect(flagsOf(texts, undefined, 'town')).toEqual([]);
  });

  it('leaves alone two forms that the codebook both lists', () => {
    expect(
      flagsOf([...repeat(90, 'Flat'), ...repeat(9, 'flat'), ...repeat(40, 'House')], {
        categories: labels({ Flat: 'A flat', flat: 'Level ground', House: 'A house' }),
      }),
    ).toEqual([]);
  });

  it('knows one slip from two', () => {
    expect([
      oneSlipApart('fenwater', 'fenwatre'),
      oneSlipApart('fenwater', 'fenwter'),
      oneSlipApart('north', 'south'),
      oneSlipApart('ward1', 'ward2'),
    ]).toEqual([true, true, false, false]);
    expect(bareForm(' Ûpper-Tarn. ')).toBe('uppertarn');
  });
});

describe('rules about rows, content and the codebook', () => {
  const rows = (n: number): Record<string, string[]> => ({
    id: spread(n, (i) => 1000 + i).map(String),
    n: spread(n, (i) => i % 7).map(String),
    cost: spread(n, (i) => 10 + (i % 90)).map(String),
    town: spread(n, (i) => i % 3).map((i) => ['Fenwater', 'Hawmoor', 'Pellsey'][i]),
  });
  const add = (columns: Record<string, string[]>, at: number, row: string[]): Record<string, string[]> =>
    Object.fromEntries(
      Object.entries(columns).map(([name, cells], i) => [
        name,
        [...cells.slice(0, at), row[i], ...cells.slice(at)],
      ]),
    );
  const file = (rows: number): Extract['files'] => [
    {
      name: 'made.csv',
      bytes: 1,
      rows,
      columns: 4,
      form: 'delimited',
      encoding: 'utf-8',
      delimiter: ',',
      header: true,
      names: ['id', 'n', 'cost', 'town'],
      notices: [],
    },
  ];
  const inFile = (columns: Record<string, string[]>): Extract => ({
    ...extractOf(columns),
    files: file(Object.values(columns)[0].length),
  });
  const rules = (extract: Extract): string[] =>
    new Inspector(extract).flags.map(
      ({ rule, variables, codes }) => `${rule} ${variables.join()} ${codes.join()}`,
    );

  it('mixed-content names each stray form, and leaves marks declared missing and impossible days alone', () => {
    const flags = flagsOf([...spread(200, (i) => i % 40), ...repeat(7, 'n/k'), ...repeat(3, '2 yrs')]);
    expect(flags).toMatchObject([
      {
        rule: 'mixed-content',
        codes: ['n/k', '2 yrs'],
        rows: 10,
        says: expect.stringContaining('“n/k” 7×, “2 yrs” 3×') as string,
      },
    ]);
    expect(
      flagsOf([...spread(200, (i) => i % 40), ...repeat(7, 'n/k')], {
        categories: [{ code: 'n/k', label: null, missing: true, reason: 'other', frequency: null }],
      }),
    ).toEqual([]);
    expect(
      flagsOf([...spread(200, (i) => `2021-0${1 + (i % 9)}-1${i % 9}`), '2021-06-31']).filter(
        ({ rule }) => rule === 'mixed-content',
      ),
    ).toEqual([]);
    expect(
      flagsOf([...spread(60, (i) => i % 3).map((i) => ['yes', 'no', '5'][i])]).filter(
        ({ rule }) => rule === 'mixed-content',
      ),
    ).toEqual([]);
  });

  it('repeated-header finds a row of names and explains it away everywhere else', () => {
    const extract = extractOf(add(rows(120), 60, ['id', 'n', 'cost', 'town']));
    expect(rules(extract)).toEqual(['repeated-header id id']);
    const dig = new Inspector(extract);
    expect(dig.flags[0]).toMatchObject({
      rows: 1,
      severity: 'high',
      says: expect.stringContaining('row 61') as string,
    });
    expect(['id', 'n', 'cost'].map((name) => dig.named(name)?.written.storage)).toEqual([
      'integer',
      'integer',
      'integer',
    ]);
    expect(dig.named('cost')?.counts).toMatchObject({ unreadable: 1, valid: 120 });
    expect(rules(extractOf(add(rows(120), 60, ['5', 'n', '3', 'Fenwater'])))).not.toContain(
      'repeated-header id id',
    );
  });

  it('summary-row finds totals by word and by sum, and not an answer that says total', () => {
    const made = rows(120);
    const sum = (name: string): string => String(made[name].reduce((all, cell) => all + Number(cell), 0));
    expect(rules(inFile(add(made, 120, ['TOTAL', sum('n'), sum('cost'), ''])))).toContain(
      'summary-row id TOTAL',
    );
    expect(rules(inFile(add(made, 120, ['9999', sum('n'), sum('cost'), ''])))).toContain(
      `summary-row n ${sum('n')}`,
    );
    expect(
      rules(inFile({ ...made, town: made.town.map((town, i) => (i === 50 ? 'Total' : town)) })).filter(
        (flag) => flag.startsWith('summary'),
      ),
    ).toEqual([]);
    expect(rules(inFile(made))).toEqual([]);
  });

  it('codebook-mismatch compares cases, frequencies and figures with what arrived', () => {
    const made = rows(120);
    const counts = new Map<string, number>();
    for (const town of made.town) counts.set(town, (counts.get(town) ?? 0) + 1);
    const categories = (off: number): CodebookEntry['categories'] =>
      [...counts].map(([code, count], i) => ({
        code,
        label: code,
        missing: false,
        reason: null,
        frequency: count + (i === 0 ? off : i === 1 ? -off : 0),
      }));
    const book = {
      name: 'c',
      form: 'ddi-codebook' as const,
      title: null,
      entries: [],
      groups: [],
      notices: [],
    };
    const told = (off: number, cases: number | null, published = {}): Flag[] =>
      new Inspector({
        ...extractOf(made, { town: { categories: categories(off) }, cost: { published } }),
        codebooks: [{ ...book, cases }],
      }).flags;
    expect(told(0, 120)).toEqual([]);
    expect(told(4, 120)).toMatchObject([
      { rule: 'codebook-mismatch', variables: ['town'], codes: [...counts.keys()].slice(0, 2), rows: 8 },
    ]);
    expect(told(0, 125)).toMatchObject([
      {
        rule: 'codebook-mismatch',
        variables: [],
        rows: 5,
        says: expect.stringContaining('publishes 125 cases, 120 rows arrived: 5 too few') as string,
      },
    ]);
    expect(told(0, 120, { min: 10, max: 120, mean: 49.5 })).toMatchObject([
      { variables: ['cost'], says: expect.stringContaining('highest 120 published, 99 arrived') as string },
    ]);
  });

  it('labels typed by a person count for codes as the codebook’s do', () => {
    const dig = new Inspector(extractOf({ x: spread(100, (i) => 1 + (i % 4)).map(String) }));
    expect(dig.named('x')?.levels.levels.map(({ label }) => label)).toEqual([null, null, null, null]);
    const entry = entryOf(
      {
        type: 'label-codes',
        variables: ['x'],
        labels: [
          { code: '1', label: 'Never' },
          { code: '2', label: 'Rarely' },
          { code: '3', label: 'Sometimes' },
          { code: '4', label: 'Often' },
        ],
      },
      'l',
      new Date(0),
    );
    expect(dig.lay(foldLog([entry]))).toEqual(new Set(['x']));
    expect(dig.named('x')?.kind).toBe('ordinal');
    expect(dig.named('x')?.levels.levels.map(({ label }) => label)).toEqual([
      'Never',
      'Rarely',
      'Sometimes',
      'Often',
    ]);
    expect(entryText(entry)).toBe('1 “Never”, 2 “Rarely”, 3 “Sometimes”, 4 “Often” labelled in x');
    dig.lay(foldLog([]));
    expect(dig.named('x')?.levels.levels.label(0)).toBeNull();
  });
});

describe('wave-drift', () => {
  const waves = (columns: Record<string, (wave: number, row: number) => string>, n = 200): Extract => {
    const names = Object.keys(columns);
    const base = extractOf(
      Object.fromEntries(
        names.map((name) => [
          name,
          [0, 1, 2].flatMap((wave) =>
            Array.from({ length: n }, (_, row) => columns[name](wave, (row * 7919) % n)),
          ),
        ]),
      ),
    );
    return {
      ...base,
      files: [2019, 2020, 2021].map((year) => ({
        name: `w_${year}.csv`,
        wave: String(year),
        bytes: 1,
        rows: n,
        columns: names.length,
        form: 'delimited' as const,
        encoding: 'utf-8',
        delimiter: ',',
        header: true,
        names,
        notices: [],
      })),
    };
  };
  const drift = (cell: (wave: number, row: number) => string): Flag[] =>
    new Inspector(waves({ x: cell })).flags.filter(({ rule }) => rule === 'wave-drift');

  it('finds a code that appears, a scale that is shifted, codes that changed places, a unit that changed', () => {
    expect(drift((wave, row) => String(wave === 2 && row % 5 === 0 ? 7 : 1 + (row % 4)))).toMatchObject([
      { codes: ['7'], rows: 40 },
    ]);
    expect(drift((wave, row) => String((wave === 0 ? 0 : 1) + (row % 5)))).toMatchObject([
      { codes: ['0'], rows: 200, says: expect.stringContaining('its scale is shifted') as string },
    ]);
    expect(
      drift((wave, row) =>
        String(row < 90 ? 1 : row < 150 ? (wave === 2 ? 3 : 2) : row < 165 ? (wave === 2 ? 2 : 3) : 4),
      ),
    ).toMatchObject([
      { codes: ['2', '3'], says: expect.stringContaining('may have changed places') as string },
    ]);
    expect(drift((wave, row) => String((10 + (row % 40)) * (wave === 2 ? 1000 : 1)))).toMatchObject([
      {
        codes: [],
        rows: 200,
        says: expect.stringContaining('unit or the question may have changed') as string,
      },
    ]);
  });

  it('leaves alone what varies by chance, what is rare, and what tells the wave', () => {
    expect(drift((wave, row) => String(1 + ((row + wave) % 5)))).toEqual([]);
    expect(drift((wave, row) => String(wave === 1 && row < 3 ? 9 : 1 + (row % 4)))).toEqual([]);
    expect(drift((wave) => String(2019 + wave))).toEqual([]);
    expect(drift((wave, row) => String(20 + wave + (row % 40)))).toEqual([]);
    expect(
      drift((wave, row) => ['Fenwater', 'Hawmoor', wave === 1 && row === 4 ? 'Hawmor' : 'Pellsey'][row % 3]),
    ).toEqual([]);
  });
});
