import { readdirSync } from 'node:fs';
import { basename } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chance } from '../../demo/random';
import type { CodebookEntry } from '../extract/extract';
import { allFlags, flagsOf, labels, make, repeat, type Cells } from '../../testing/made';
import { EXTRACT_RULES, RULES } from './registry';
import type { Flag } from './rule';

const normal =
  (mean: number, sd: number) =>
  (c: ReturnType<typeof chance>): number =>
    Math.round(mean + sd * c.normal());
const skewed =
  (scale: number, spread: number) =>
  (c: ReturnType<typeof chance>): number =>
    Math.round(Math.exp(Math.log(scale) + spread * c.normal()));
const days =
  (from: number, range: number) =>
  (c: ReturnType<typeof chance>): string =>
    new Date((from + c.whole(0, range)) * 86400000).toISOString().slice(0, 10);
const YES = { 1: 'Yes', 2: 'No', 3: 'In part' };

/** Rule, what it is, cells, entry, name, codes that are flagged. */
const TRUE: [string, string, Cells, Partial<CodebookEntry> | undefined, string, string[]][] = [
  [
    'undocumented-code',
    'a code beyond the list',
    [...make(300, (c) => c.whole(1, 3)), ...repeat(9, 5)],
    { categories: labels(YES) },
    'x',
    ['5'],
  ],
  [
    'documented-unused',
    'a code nobody gave',
    make(300, (c) => c.whole(1, 3)),
    { categories: labels({ ...YES, 4: 'Never' }) },
    'x',
    ['4'],
  ],
  [
    'nonresponse-label',
    'a refusal that counts as valid',
    make(300, (c) => c.whole(1, 4)),
    { categories: labels({ ...YES, 4: 'Refused to say' }) },
    'x',
    ['4'],
  ],
  [
    'nonresponse-label',
    'in German',
    make(300, (c) => c.whole(1, 4)),
    { categories: labels({ 1: 'Ja', 2: 'Nein', 3: 'Teils', 4: 'Keine Angabe' }) },
    'x',
    ['4'],
  ],
  [
    'nonresponse-label',
    'as words without a codebook',
    make(300, (c) => c.pick(['gas', 'oil', "Don't know"])),
    undefined,
    'fuel',
    ["Don't know"],
  ],
  [
    'partly-labelled',
    'a limit among numbers',
    make(400, (c) => Math.min(15, Math.abs(Math.round(7 * c.normal())))),
    { categories: labels({ 15: '15 or more' }) },
    'n_tools',
    ['15'],
  ],
  [
    'out-of-range',
    'beyond the codebook’s range',
    [...make(300, (c) => c.whole(1, 12)), 13, 13],
    { validRanges: [{ min: 1, max: 12 }] },
    'x',
    ['13'],
  ],
  [
    'out-of-range',
    'more than a hundred of a hundred',
    [...make(300, (c) => c.whole(0, 100)), 104, 130],
    { label: 'Share of windows (percent)' },
    'x',
    ['104', '130'],
  ],
  [
    'out-of-range',
    'an age nobody reaches',
    [...make(300, (c) => c.whole(18, 90)), 143],
    { label: 'Age of respondent' },
    'age',
    ['143'],
  ],
  [
    'out-of-range',
    'a year to come',
    [...make(300, (c) => c.whole(1950, 2010)), 2091],
    { label: 'Year of birth' },
    'yob',
    ['2091'],
  ],
  [
    'variant-spelling',
    'a digit read for a letter',
    [...repeat(90, 'oak'), ...repeat(60, 'ash'), '0ak', '0ak'],
    undefined,
    'tree',
    ['0ak'],
  ],
  [
    'sentinel-code',
    'zero far below a narrow quantity',
    [...make(600, normal(128, 17)), ...repeat(14, 0)],
    undefined,
    'sbp',
    ['0'],
  ],
  [
    'spike',
    'the mean of the others, where round numbers stand out too',
    [...make(1500, (c) => (c.odds(0.3) ? 50 * c.whole(1, 8) : c.whole(30, 420))), ...repeat(90, 226)],
    undefined,
    'spent',
    ['226'],
  ],
  [
    'spike',
    'a round default that outdoes every other round number',
    [...make(1500, (c) => Math.round(100 + 35 * c.normal())), ...repeat(150, 120)],
    undefined,
    'area',
    ['120'],
  ],
  [
    'unit-mixture',
    'pounds among kilograms, touching',
    [
      ...make(900, (c) => (76 + 13 * c.normal()).toFixed(1)),
      ...make(70, (c) => ((76 + 13 * c.normal()) * 2.2046).toFixed(1)),
    ],
    undefined,
    'weight',
    [],
  ],
  [
    'far-out-value',
    'a slip in a symmetrical quantity',
    [...make(400, normal(170, 9)), 1720],
    { label: 'Height (cm)' },
    'height',
    ['1720'],
  ],
  [
    'far-out-value',
    'a slip in a skewed one',
    [...make(400, skewed(300, 0.6)), 9_400_000],
    undefined,
    'cost',
    ['9400000'],
  ],
  [
    'spike',
    'a mean filled in',
    [...make(1200, skewed(300, 0.7)), ...repeat(110, 347)],
    undefined,
    'spent',
    ['347'],
  ],
  [
    'top-code',
    'incomes cut off',
    make(900, (c) => Math.min(5000, skewed(2500, 0.6)(c))),
    { label: 'Income' },
    'income',
    ['5000'],
  ],
  [
    'bottom-code',
    'small ones cut up',
    make(900, (c) => Math.max(900, skewed(1200, 0.6)(c))),
    { label: 'Income' },
    'income',
    ['900'],
  ],
  [
    'heaping',
    'rounded to hundreds',
    make(900, (c) => (c.odds(0.6) ? Math.round(skewed(2500, 0.5)(c) / 100) * 100 : skewed(2500, 0.5)(c))),
    undefined,
    'income',
    [],
  ],
  [
    'placeholder-date',
    'the first day of a century',
    [...make(300, days(18600, 300)), ...repeat(4, '1900-01-01')],
    undefined,
    'day',
    ['1900-01-01'],
  ],
  [
    'placeholder-date',
    'a frequent one in the midst',
    [...make(3000, days(-3650, 11000)), ...repeat(60, '1970-01-01')],
    undefined,
    'dob',
    ['1970-01-01'],
  ],
  [
    'impossible-date',
    'a 31st of June',
    [...make(300, days(18600, 300)), '2021-06-31'],
    undefined,
    'day',
    ['2021-06-31'],
  ],
  [
    'future-date',
    'a day to come',
    [...make(300, days(18600, 300)), '2041-03-01'],
    undefined,
    'day',
    ['2041-03-01'],
  ],
  [
    'leading-zeros',
    'codes that begin with zeros',
    make(300, (c) => String(c.whole(1, 80)).padStart(4, '0')),
    undefined,
    'parish',
    [],
  ],
  [
    'leading-zeros',
    'some have lost theirs',
    [...make(300, (c) => String(c.whole(1, 80)).padStart(4, '0')), '12', '7', '33'],
    undefined,
    'parish',
    [],
  ],
  [
    'stray-whitespace',
    'at the ends',
    [...make(100, (c) => c.pick(['oak', 'ash', 'elm'])), ' oak', 'ash '],
    undefined,
    'tree',
    [' oak', 'ash '],
  ],
  [
    'encoding-damage',
    'decoded twice',
    [...make(100, (c) => c.pick(['Köln', 'Bonn'])), 'KÃ¶ln'],
    undefined,
    'town',
    ['KÃ¶ln'],
  ],
  [
    'encoding-damage',
    'lost',
    [...make(100, (c) => c.pick(['Köln', 'Bonn'])), 'K\ufffdln'],
    undefined,
    'town',
    ['K\ufffdln'],
  ],
  ['constant', 'one value', repeat(60, 4417), undefined, 'fileid', ['4417']],
  [
    'mostly-missing',
    'hardly anything',
    [...repeat(80, ''), ...make(30, (c) => c.whole(1, 9))],
    undefined,
    'x',
    [],
  ],
  ['mostly-missing', 'nothing', repeat(60, ''), undefined, 'x', []],
  [
    'unit-mixture',
    'metres among kilometres',
    [...make(300, (c) => c.whole(2, 24)), ...make(40, (c) => c.whole(2, 24) * 1000)],
    { label: 'Distance (kilometres)' },
    'km',
    [],
  ],
  ['unportable-name', 'a point at the end', make(40, (c) => c.whole(1, 5)), undefined, 'spent.', []],
  [
    'weight-like',
    'a weight',
    make(100, (c) => (0.4 + c.next()).toFixed(3)),
    { label: 'Household weight' },
    'wt',
    [],
  ],
  [
    'imputation-marker',
    'a marker',
    make(100, (c) => (c.odds(0.1) ? 1 : 0)),
    { label: 'Imputation flag: income' },
    'z_inc',
    [],
  ],
];

it('each rule is a file of its name', () => {
  const rules = [...RULES, ...EXTRACT_RULES].map(({ rule }) => rule);
  expect(new Set(rules).size).toBe(rules.length);
  const files = new Set(
    readdirSync(import.meta.dirname, { recursive: true }).map((path) => basename(String(path))),
  );
  expect(rules.filter((rule) => !files.has(`${rule}.ts`))).toEqual([]);
});

describe('each rule finds its case', () => {
  it.each(TRUE)('%s: %s', (rule, _, cells, entry, name, codes) => {
    const found = flagsOf(cells, entry, name).filter((flag) => flag.rule === rule);
    expect(found.map((flag) => [...flag.codes].sort())).toEqual([[...codes].sort()]);
    expect(found[0].rows).toBeLessThanOrEqual(cells.length);
    expect(found[0].says.length).toBeGreaterThan(10);
  });

  it('and no rule depends on the order of the rows', () => {
    for (const [rule, , cells, entry, name] of TRUE) {
      const shuffled = fc.sample(fc.shuffledSubarray(cells, { minLength: cells.length }), 1)[0];
      const of = (texts: Cells): unknown =>
        flagsOf(texts, entry, name)
          .filter((flag) => flag.rule === rule)
          .map(({ codes, rows, severity, certainty }) => ({ codes, rows, severity, certainty }));
      expect(of(shuffled), rule).toEqual(of(cells));
    }
  });
});

describe('what only looks like it is left alone', () => {
  it.each<[string, Cells, Partial<CodebookEntry> | undefined, string]>([
    ['a real tail of incomes', make(900, skewed(2000, 0.9)), { label: 'Income' }, 'income'],
    ['a bell of heights', make(900, normal(170, 9)), { label: 'Height (cm)' }, 'height'],
    [
      'many zeros',
      [...repeat(300, 0), ...make(500, skewed(60, 0.8))],
      { label: 'Spent on repairs' },
      'sp_rep',
    ],
    [
      'percentages with all and nothing',
      make(600, (c) => (c.odds(0.3) ? 100 : c.odds(0.3) ? 0 : c.whole(1, 99))),
      { label: 'Share (percent)' },
      'pc',
    ],
    [
      'hours up to a whole day',
      make(600, (c) => Math.min(24, Math.max(0, normal(11, 5)(c)))),
      { label: 'Hours heated on a winter day' },
      'hrs',
    ],
    [
      'a scale from 0 to 10',
      make(600, (c) => Math.min(10, Math.max(0, normal(6, 2)(c)))),
      { label: 'Satisfaction (0–10)' },
      'sat',
    ],
    [
      'a scale from 1 to 5 with all labels',
      make(600, (c) => c.whole(1, 5)),
      { categories: labels({ 1: 'Never', 2: 'Rarely', 3: 'Sometimes', 4: 'Often', 5: 'Always' }) },
      'oft',
    ],
    [
      'labels about refuse and filters',
      make(600, (c) => c.whole(1, 3)),
      {
        categories: labels({
          1: 'Household refuse',
          2: 'Water filter',
          3: 'The thing most missing from the house',
        }),
      },
      'x',
    ],
    [
      'disagreement in German',
      make(600, (c) => c.whole(1, 4)),
      {
        categories: labels({
          1: 'stimme gar nicht zu',
          2: 'trifft eher nicht zu',
          3: 'stimme eher zu',
          4: 'stimme voll zu',
        }),
      },
      'x',
    ],
    ['years of birth', make(600, (c) => c.whole(1930, 2005)), { label: 'Year of birth' }, 'yob'],
    [
      'the age of things',
      make(600, (c) => Math.abs(normal(0, 60)(c))),
      { label: 'Age of the building (years)' },
      'age_b',
    ],
    ['birthdays, some on the first of 1970', make(3000, days(-3650, 11000)), undefined, 'dob'],
    [
      'days to come that are plans',
      make(300, days(23000, 900)),
      { label: 'Planned date of the next repair' },
      'plan',
    ],
    [
      'accents, dashes and quotes that are right',
      make(300, (c) => c.pick(['Köln', 'São Paulo', 'L’Aquila', 'Aix–en', 'Tromsø'])),
      undefined,
      'town',
    ],
    [
      'ticks that are blank where not made',
      make(300, (c) => (c.odds(0.2) ? 1 : '')),
      { label: 'Ticked: gas' },
      'tick_1',
    ],
    ['temperatures below zero', make(600, normal(2, 8)), { label: 'Temperature (degrees)' }, 'temp'],
    [
      'small counts',
      make(600, (c) => Math.min(6, Math.floor(Math.abs(1.5 * c.normal())))),
      { label: 'Number of children' },
      'kids',
    ],
    ['a scale on both sides of zero', make(600, (c) => c.whole(-2, 2)), undefined, 'opinion'],
    [
      'no hours for those without work',
      make(600, (c) => (c.odds(0.15) ? 0 : c.pick([20, 37, 38, 40, 40, 45, 52]))),
      { label: 'Hours' },
      'hrs',
    ],
    [
      'a week of forty hours',
      make(600, (c) => (c.odds(0.5) ? 40 : Math.max(1, normal(36, 12)(c)))),
      { label: 'Hours worked in a week' },
      'hrs_wk',
    ],
    [
      'prices that end as prices do',
      make(600, (c) => (c.odds(0.6) ? c.pick([4.99, 9.99, 19.99, 99.99]) : (1 + 98 * c.next()).toFixed(2))),
      { label: 'Price' },
      'price',
    ],
    [
      'the favourite hours of a week, unnamed',
      make(3000, (c) =>
        c.odds(0.6) ? c.pick([40, 40, 38, 45, 50]) : Math.min(90, Math.max(1, normal(38, 12)(c))),
      ),
      undefined,
      'wkhtot',
    ],
    [
      'fares that many paid',
      make(900, (c) =>
        c.odds(0.4) ? c.pick([7.25, 8.05, 13, 26.55, 10.4]) : Math.exp(3 + c.normal()).toFixed(4),
      ),
      undefined,
      'fare',
    ],
    [
      'humidity up to all of a hundred',
      make(900, (c) => Math.min(100, 80 + 12 * c.normal()).toFixed(1)),
      undefined,
      'hum',
    ],
    [
      'a heavy tail on both sides',
      make(900, (c) => (c.normal() * (c.odds(0.05) ? 0.06 : 0.02)).toFixed(5)),
      undefined,
      'ret',
    ],
    ['a power tail', make(900, (c) => Math.round(100 / (1 - c.next() * 0.9999) ** 0.6)), undefined, 'size'],
    [
      'weights of men and women',
      [...make(500, normal(64, 9)), ...make(500, normal(82, 11))],
      { label: 'Weight (kg)' },
      'weight_kg',
    ],
    [
      'weights of children and adults',
      [...make(400, (c) => Math.round(Math.exp(3.2 + 0.35 * c.normal()))), ...make(500, normal(75, 12))],
      { label: 'Weight (kg)' },
      'weight_kg',
    ],
    [
      'distances with a long tail',
      make(900, (c) => Math.exp(1.2 + 0.9 * c.normal()).toFixed(1)),
      { label: 'Distance (km)' },
      'dist',
    ],
    [
      'two kinds of homes, far apart in price but of unlike spread',
      [...make(400, normal(900, 20)), ...make(100, skewed(90_000, 0.9))],
      { label: 'Price' },
      'price',
    ],
  ])('%s', (_, cells, entry, name) => {
    expect(flagsOf(cells, entry, name).filter(({ severity }) => severity !== 'note')).toEqual([]);
  });
});

describe('rules that look at several variables', () => {
  const ids = Array.from({ length: 200 }, (_, i) => `H${1000 + i * 3}`);
  const filler = (n: number): Record<string, Cells> => ({
    a: make(n, (c) => c.whole(1, 9)),
    b: make(n, normal(50, 12)),
    c: make(n, (c) => c.pick(['x', 'y', 'z'])),
    d: make(n, skewed(80, 0.7)),
    e: make(n, (c) => c.whole(1, 30)),
  });
  const of = (flags: Flag[], rule: string): Flag[] => flags.filter((flag) => flag.rule === rule);

  it('duplicate-identifier: one of two hundred stands twice; none does', () => {
    const twice = [...ids.slice(0, 199), ids[4]];
    expect(of(allFlags({ hhid: twice, ...filler(200) }), 'duplicate-identifier')).toMatchObject([
      { variables: ['hhid'], codes: [ids[4]], rows: 2, severity: 'high' },
    ]);
    expect(of(allFlags({ hhid: ids, ...filler(200) }), 'duplicate-identifier')).toEqual([]);
    expect(
      of(allFlags({ hhid: ids.map((_, i) => ids[i >> 1]), ...filler(200) }), 'duplicate-identifier'),
    ).toEqual([]);
  });

  it('duplicate-row: the same in every column, and not where few columns make rows alike', () => {
    const columns: Record<string, Cells> = { hhid: ids, ...filler(200) };
    const doubled = Object.fromEntries(
      Object.entries(columns).map(([name, cells]) => [name, [...cells, cells[7]]]),
    );
    expect(of(allFlags(doubled), 'duplicate-row')).toMatchObject([{ rows: 2, severity: 'high' }]);
    expect(of(allFlags(columns), 'duplicate-row')).toEqual([]);
    expect(
      of(
        allFlags({
          a: make(200, (c) => c.whole(1, 2)),
          b: make(200, (c) => c.whole(1, 2)),
          c: make(200, (c) => c.whole(1, 2)),
          d: make(200, (c) => c.whole(1, 2)),
          e: make(200, (c) => c.whole(1, 2)),
        }),
        'duplicate-row',
      ),
    ).toEqual([]);
  });

  it('duplicate-row: every row that was entered again, wherever it stands, and no other', () => {
    const digits = (i: number): number[] => [i % 7, (i * 3) % 11, Math.floor(i / 7), i % 13, i % 17, i % 5];
    fc.assert(
      fc.property(fc.array(fc.nat(999), { minLength: 1, maxLength: 30 }), fc.nat(1000), (again, at) => {
        // A thousand rows of which no two are the same, and some of them once more in their midst.
        const order = Array.from({ length: 1000 }, (_, i) => i);
        order.splice(at, 0, ...again);
        const columns = Object.fromEntries(
          [...'abcdef'].map((name, k) => [name, order.map((i) => String(digits(i)[k]))]),
        );
        const [flag] = of(allFlags(columns), 'duplicate-row');
        const known = new Set<number>();
        const twice = order.flatMap((i, row) => (known.has(i) ? [row] : (known.add(i), [])));
        expect([...(flag.at ?? [])].sort((a, b) => a - b)).toEqual(twice);
        expect(flag.rows).toBe(twice.length + new Set(twice.map((row) => order[row])).size);
      }),
      { numRuns: 30 },
    );
  });

  it('repeat-column: the same values, or the same partition, under another name', () => {
    const { a, ...rest } = filler(200);
    expect(of(allFlags({ a, again: [...a], ...rest }), 'repeat-column')).toMatchObject([
      { variables: ['a', 'again'] },
    ]);
    expect(
      of(allFlags({ a, letters: a.map((cell) => 'zyxwvutsr'[Number(cell) - 1]), ...rest }), 'repeat-column'),
    ).toMatchObject([{ variables: ['a', 'letters'] }]);
    expect(of(allFlags({ a, ...rest }), 'repeat-column')).toEqual([]);
  });

  it('universe-gate and gate-breach: blank exactly where another says no, and rows that contradict', () => {
    const boiler = make(400, (c) => c.whole(1, 2));
    const c = chance(5);
    const age: Cells = boiler.map((has) => (has === 1 ? c.whole(0, 30) : ''));
    expect(of(allFlags({ boiler, boil_age: age }), 'universe-gate')).toMatchObject([
      { variables: ['boil_age', 'boiler'], codes: ['2'], severity: 'note' },
    ]);
    expect(of(allFlags({ boiler, boil_age: age }), 'mostly-missing')).toEqual([]);
    const wrong = [...age];
    const shut = boiler.flatMap((has, row) => (has === 2 ? [row] : [])).slice(0, 3);
    for (const row of shut) wrong[row] = 9;
    expect(of(allFlags({ boiler, boil_age: wrong }), 'gate-breach')).toMatchObject([
      { variables: ['boil_age', 'boiler'], rows: 3 },
    ]);
    expect(
      of(
        allFlags({ boiler, boil_age: make(400, (one) => (one.odds(0.5) ? one.whole(0, 30) : '')) }),
        'universe-gate',
      ),
    ).toEqual([]);
  });

  it('universe-gate: several codes that open', () => {
    const tenure = make(500, (c) => c.whole(1, 4));
    const c = chance(6);
    const flags = allFlags(
      { tenure, rent: tenure.map((t) => (Number(t) >= 3 ? 200 + c.whole(0, 800) : '')) },
      { tenure: { categories: labels({ 1: 'Owned', 2: 'Loan', 3: 'Landlord', 4: 'County' }) } },
    );
    expect(of(flags, 'universe-gate')).toMatchObject([
      {
        variables: ['rent', 'tenure'],
        codes: ['1', '2'],
        says: expect.stringContaining('asked where tenure is 3 Landlord or 4 County') as string,
      },
    ]);
  });

  it('battery-outlier: the item that goes the other way, and no other', () => {
    const c = chance(11);
    const care = Array.from({ length: 500 }, () => c.normal());
    const item = (sign: number): Cells =>
      care.map((x) => Math.min(5, Math.max(1, Math.round(3 + sign * 0.9 * x + 0.7 * c.normal()))));
    const battery = { agr_a: item(1), agr_b: item(1), agr_c: item(-1), agr_d: item(1), agr_e: item(1) };
    const entries = Object.fromEntries(
      Object.keys(battery).map((name) => [
        name,
        {
          categories: labels({
            1: 'Strongly disagree',
            2: 'Disagree',
            3: 'Neither',
            4: 'Agree',
            5: 'Strongly agree',
          }),
        },
      ]),
    );
    expect(of(allFlags(battery, entries), 'battery-outlier').map(({ variables }) => variables)).toEqual([
      ['agr_c'],
    ]);
    expect(of(allFlags({ ...battery, agr_c: item(1) }, entries), 'battery-outlier')).toEqual([]);
  });

  it('straight-lining: rows that answer a battery alike throughout, as a remark', () => {
    const c = chance(13);
    const care = Array.from({ length: 600 }, () => c.normal());
    const names = ['agr_a', 'agr_b', 'agr_c', 'agr_d', 'agr_e', 'agr_f', 'agr_g'];
    const battery = (lines: number): Record<string, Cells> =>
      Object.fromEntries(
        names.map((name) => [
          name,
          care.map((x, row) =>
            row < lines
              ? 1 + (row % 5)
              : Math.min(5, Math.max(1, Math.round(3 + 0.6 * x + 0.9 * c.normal()))),
          ),
        ]),
      );
    const found = of(allFlags(battery(25)), 'straight-lining');
    expect(found).toMatchObject([{ variables: names, severity: 'note' }]);
    expect(found[0].at?.slice(0, 25)).toEqual(Array.from({ length: 25 }, (_, row) => row));
    expect(of(allFlags(battery(0)), 'straight-lining')).toEqual([]);
    // Where nearly everybody says the same it says nothing of anyone.
    expect(
      of(
        allFlags(
          Object.fromEntries(names.map((name) => [name, care.map((x) => (x > 1.2 ? c.whole(1, 5) : 3))])),
        ),
        'straight-lining',
      ),
    ).toEqual([]);
  });
});
