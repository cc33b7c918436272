/** Each class of fault beside what looks like it and is none. */
import { describe, expect, it } from 'vitest';
import { allFlags, extractOf, flagsOf, labels, make, repeat, type Cells } from '../../testing/made';
import { readsAsNoAnswer } from '../codebook/no-answer';
import { Inspector } from '../inspect/inspect';
import type { Flag } from './rule';

const N = 400;
const of = (flags: readonly Flag[], rule: string): Flag[] => flags.filter((flag) => flag.rule === rule);
const codes = (flags: readonly Flag[], rule: string): string[] =>
  of(flags, rule).flatMap((flag) => flag.codes);
const pick = (values: (string | number)[], weights?: number[], rows = N): Cells =>
  make(rows, (c) => c.pick(values, weights));
const grave = (flags: readonly Flag[]): string[] =>
  flags.filter(({ severity }) => severity === 'high' || severity === 'medium').map(({ rule }) => rule);

describe('words for no answer', () => {
  it.each(['UNKNOWN', 'not known', 'n/k', 'NA', '.', '—', 'unbekannt', 'not stated', 'sin dato'])(
    'stand among words without a codebook: %s',
    (word) => {
      const cells = pick(['warden', 'neighbour', 'school', word], [40, 30, 20, 5]);
      expect(codes(flagsOf(cells, undefined, 'found_by'), 'nonresponse-label')).toEqual([word]);
    },
  );

  it.each([
    ['refused by lender', 'came back', 'kept'],
    ['Owner refused to keep', 'stray', 'born here'],
    ['DK 417', 'DK 418', 'SV 22'],
    ['refused', 'granted', 'pending'],
    ['missing person', 'rock fall', 'ice fall'],
  ])('are not what an answer is about: %s', (...words) => {
    expect(codes(flagsOf(pick(words), undefined, 'what'), 'nonresponse-label')).toEqual([]);
  });

  it('count in labels where they are all that is said, or stand first', () => {
    expect(
      ['Refused', 'Refused to answer', 'Refused: no time', '8 Refused', 'Respondent refused'].map(
        readsAsNoAnswer,
      ),
    ).toEqual(Array<boolean>(5).fill(true));
    expect(
      ['Loan refused by lender', 'Being refused entry with a dog', 'Refused by the bank'].map(
        readsAsNoAnswer,
      ),
    ).toEqual(Array<boolean>(3).fill(false));
  });
});

describe('blanks', () => {
  it('that are doubled in a few names, and beside a few numbers', () => {
    const names = Array.from({ length: N }, (_, i) => (i % 100 ? `Quay No ${i}` : `Quay  No ${i}`));
    expect(codes(flagsOf(names, undefined, 'quay'), 'stray-whitespace')).toHaveLength(4);
    const numbers = make(N, (c, i) => `${i % 90 === 7 ? ' ' : ''}${(20 + 9 * c.next()).toFixed(1)}`);
    expect(of(flagsOf(numbers, undefined, 'temp'), 'stray-whitespace')).toMatchObject([
      { rows: 5, severity: 'low' },
    ]);
  });

  it('are nothing in prose, nor where every number is padded', () => {
    const prose = make(
      N,
      (c, i) =>
        `It was cold.  Nobody came for ${i} days, and the roof leaked all through the ${c.pick(['night', 'week'])}.`,
    );
    expect(of(flagsOf(prose, undefined, 'said'), 'stray-whitespace')).toEqual([]);
    expect(
      of(
        flagsOf(
          make(N, (c) => ` ${c.whole(10, 99)}`),
          undefined,
          'n',
        ),
        'stray-whitespace',
      ),
    ).toEqual([]);
  });
});

describe('days and years', () => {
  it('in another order are mixed, not impossible', () => {
    const cells = make(N, (c, i) =>
      i % 40 === 3 ? `2013-0${c.whole(1, 9)}-1${c.whole(0, 9)}` : `1${c.whole(3, 9)}/0${c.whole(1, 9)}/2013`,
    );
    const flags = flagsOf(cells, undefined, 'applied');
    expect(of(flags, 'mixed-content')).toMatchObject([{ rows: 10 }]);
    expect(of(flags, 'impossible-date')).toEqual([]);
  });

  it('that stand for none are known as years and as instants', () => {
    const years = [...make(N, (c) => c.whole(1931, 2004)), ...repeat(6, 1900)];
    expect(codes(flagsOf(years, undefined, 'yob'), 'placeholder-date')).toEqual(['1900']);
    expect(
      codes(
        flagsOf(
          make(N, (c) => c.whole(1890, 1990)),
          undefined,
          'built',
        ),
        'placeholder-date',
      ),
    ).toEqual([]);
    const stamps = [
      ...make(N, (c) => `2019-0${c.whole(1, 9)}-1${c.whole(0, 9)} 10:2${c.whole(0, 9)}:00`),
      ...repeat(9, '1969-12-31 19:00:00'),
    ];
    expect(codes(flagsOf(stamps, undefined, 'seen_at'), 'placeholder-date')).toEqual(['1969-12-31 19:00:00']);
  });

  it('pile up where a register was closed', () => {
    const days = make(N, (c) => new Date(Date.UTC(2010, 0, 1 + c.whole(0, 3280))).toISOString().slice(0, 10));
    expect(of(flagsOf(days, undefined, 'closed'), 'top-code')).toEqual([]);
    expect(codes(flagsOf([...days, ...repeat(40, '2018-12-31')], undefined, 'closed'), 'top-code')).toEqual([
      '2018-12-31',
    ]);
  });
});

describe('what the words allow', () => {
  it('an hour of 31, and not an age in months', () => {
    expect(
      codes(flagsOf([...make(N, (c) => c.whole(6, 22)), 31, 31], undefined, 'hour_in'), 'out-of-range'),
    ).toEqual(['31']);
    expect(
      of(
        flagsOf(
          make(N, (c) => c.whole(1, 170)),
          undefined,
          'age_mo',
        ),
        'out-of-range',
      ),
    ).toEqual([]);
  });

  it('a range of the codebook is broken by however many', () => {
    const cells = make(N, (c) => c.whole(1, 15));
    const entry = { validRanges: [{ min: 1, max: 10 }] };
    expect(of(flagsOf(cells, entry, 'step'), 'out-of-range')).toHaveLength(1);
  });
});

describe('titles', () => {
  const years = make(N, (c) => c.whole(1931, 2004));
  const ages = make(N, (c) => c.whole(17, 94));

  it('of two variables that have changed places', () => {
    expect(of(allFlags({ age: years, birth_year: ages }), 'exchanged-titles')).toMatchObject([
      { variables: ['age', 'birth_year'] },
    ]);
  });

  it('are right where only one is broken, or each by a few rows', () => {
    const heights = make(N, (c) => c.whole(121, 198));
    expect(of(allFlags({ age: heights, birth_year: years }), 'exchanged-titles')).toEqual([]);
    const slips = (from: Cells, to: Cells): Cells => from.map((one, i) => (i % 50 ? one : to[i]));
    expect(
      of(allFlags({ age: slips(ages, years), birth_year: slips(years, ages) }), 'exchanged-titles'),
    ).toEqual([]);
  });
});

describe('zero and what lies below', () => {
  it('among grown-ups nobody is just born', () => {
    const ages = [...make(N, (c) => c.whole(19, 88)), ...repeat(9, 0)];
    expect(codes(flagsOf(ages, undefined, 'age'), 'sentinel-code')).toEqual(['0']);
    expect(
      codes(
        flagsOf(
          make(N, (c) => c.whole(0, 88)),
          undefined,
          'age',
        ),
        'sentinel-code',
      ),
    ).toEqual([]);
  });

  it('heights go on below the sea, codes do not', () => {
    const heights = make(3000, (c) => c.whole(-4, 400));
    expect(codes(flagsOf(heights, undefined, 'elev_m'), 'sentinel-code')).toEqual([]);
    const coded = [...make(3000, (c) => c.whole(0, 400)), ...repeat(60, -8), ...repeat(90, -9)];
    expect(codes(flagsOf(coded, undefined, 'elev_m'), 'sentinel-code')).toEqual(['-9', '-8']);
  });
});

describe('columns of two codes', () => {
  it('that are each other turned round are told, those that merely resemble each other are not', () => {
    const ever = pick([0, 1]);
    const never = ever.map((cell) => 1 - Number(cell));
    expect(of(allFlags({ ever, never, age: make(N, (c) => c.whole(1, 90)) }), 'repeat-column')).toMatchObject(
      [{ variables: ['ever', 'never'], says: expect.stringContaining('the other way round') }],
    );
    const nearly = never.map((cell, i) => (i === 7 ? 1 - cell : cell));
    expect(of(allFlags({ ever, nearly, age: make(N, (c) => c.whole(1, 90)) }), 'repeat-column')).toEqual([]);
  });
});

describe('items of a battery', () => {
  const items = (of: (at: number) => Cells): Record<string, Cells> =>
    Object.fromEntries(['a', 'b', 'c', 'd', 'e'].map((letter, at) => [`menu_${letter}`, of(at)]));
  it('with 1 and 2 among items of 0 and 1, or on a longer scale', () => {
    const ticks = items((at) => make(N, (c) => c.whole(0, 1) + (at === 4 ? 1 : 0)));
    expect(of(allFlags(ticks), 'battery-outlier').map(({ variables }) => variables)).toEqual([['menu_e']]);
    const scales = items((at) => make(N, (c) => (at === 3 ? c.whole(0, 6) : c.whole(1, 3))));
    expect(of(allFlags(scales), 'battery-outlier').map(({ variables }) => variables)).toEqual([['menu_d']]);
  });
  it('are none where each has a list of its own', () => {
    const unlike = items((at) => make(N, (c) => c.whole(1, 2 + at)));
    expect(of(allFlags(unlike), 'battery-outlier')).toEqual([]);
  });
});

describe('identifiers and rows', () => {
  it('a second identifier that repeats is told, a group of several rows is not', () => {
    const id = Array.from({ length: N }, (_, i) => i + 1);
    const card = Array.from({ length: N }, (_, i) => `K-${5000 + i}`);
    const twice = card.map((code, i) => (i === 50 ? card[20] : code));
    const household = Array.from({ length: N }, (_, i) => `H-${100 + (i >> 1)}`);
    expect(codes(allFlags({ id, card_no: twice, household }), 'duplicate-identifier')).toEqual(['K-5020']);
  });

  it('sums between the rows are told by their name and their sums', () => {
    const rows = Array.from({ length: 90 }, (_, i) => [`2${i % 3}`, String(i + 1), String(3 * i + 2)]);
    const sum = (from: number, at: number): string =>
      String(rows.slice(from, from + 30).reduce((all, row) => all + Number(row[at]), 0));
    const table = [0, 30, 60].flatMap((from) => [
      ...rows.slice(from, from + 30),
      [`Subtotal ${from}`, sum(from, 1), sum(from, 2)],
    ]);
    const columns = Object.fromEntries(
      ['place', 'hens', 'eggs'].map((name, at) => [name, table.map((row) => row[at])]),
    );
    expect(of(allFlags(columns), 'summary-row')).toMatchObject([
      { rows: 3, codes: ['Subtotal 0', 'Subtotal 30', 'Subtotal 60'] },
    ]);
  });

  it('equal rows are natural where answers are coarse, and grave where they are fine', () => {
    const coarse = Object.fromEntries(
      ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'].map((name, at) => [
        name,
        make(300 + at, (c) => c.pick([1, 2, 3], [70, 20, 10])).slice(0, 300),
      ]),
    );
    const natural = of(allFlags(coarse), 'duplicate-row');
    expect(natural.filter(({ severity }) => severity === 'high')).toEqual([]);
    const fine = Object.fromEntries(
      ['a', 'b', 'c', 'd', 'e', 'f'].map((name, at) => [
        name,
        make(300 + at, (c) => c.whole(1, 400)).slice(0, 299),
      ]),
    );
    const doubled = Object.fromEntries(
      Object.entries(fine).map(([name, cells]) => [name, [...cells, cells[17]]]),
    );
    expect(of(allFlags(doubled), 'duplicate-row')).toMatchObject([{ severity: 'high', rows: 2 }]);
  });
});

describe('spellings', () => {
  it('with two letters that changed places are slips; signs that matter are not', () => {
    const cells = [...repeat(300, 'Bicycle'), ...repeat(200, 'Tram'), 'Bycicle', 'Bycicle'];
    expect(codes(flagsOf(cells, undefined, 'transport'), 'variant-spelling')).toEqual(['Bycicle']);
    const signs = [
      ...repeat(200, 'master'),
      ...repeat(90, 'master+'),
      ...repeat(80, '12'),
      ...repeat(70, '<12'),
    ];
    expect(of(flagsOf(signs, undefined, 'level'), 'variant-spelling')).toEqual([]);
  });
});

describe('prices and whole numbers among decimals', () => {
  it('are no spikes', () => {
    const prices = make(N, (c) => `${c.whole(2, 60)}.${c.pick(['90', '90', '50'])}`).concat(
      repeat(40, '9.90'),
    );
    expect(grave(of(flagsOf(prices, undefined, 'price'), 'spike'))).toEqual([]);
    const halves = make(900, (c) => (c.odds(0.7) ? c.whole(9, 40) : (9 + 30 * c.next()).toFixed(1)));
    expect(grave(of(flagsOf(halves, undefined, 'mpg'), 'spike'))).toEqual([]);
  });
});

describe('codes and waves', () => {
  it('a list without labels is a list', () => {
    const entry = {
      categories: ['a', 'b', 'c'].map((code) => ({ ...labels({ [code]: '' })[0], label: null })),
    };
    expect(
      codes(flagsOf(pick(['a', 'b', 'c', 'q'], [40, 30, 20, 2]), entry, 'soil'), 'undocumented-code'),
    ).toEqual(['q']);
  });

  const twoWaves = (before: Cells, after: Cells): Flag[] => {
    const extract = extractOf({ level: [...before, ...after], hens: make(400, (c) => c.whole(0, 9)) });
    const file = (name: string) => ({
      name,
      bytes: 0,
      rows: 200,
      columns: 2,
      form: 'delimited' as const,
      encoding: 'utf-8',
      delimiter: ',',
      header: true,
      names: ['level', 'hens'],
      wave: name,
      notices: [],
    });
    return new Inspector({ ...extract, files: [file('2019'), file('2020')] }).flags;
  };

  it('a variable that is words in one wave and numbers in another', () => {
    const flags = twoWaves(pick(['low', 'middle', 'high'], undefined, 200), pick([1, 2, 3], undefined, 200));
    expect(of(flags, 'wave-drift')).toMatchObject([
      { variables: ['level'], says: 'written as words in 2019 and as whole numbers in 2020' },
    ]);
  });

  it('a scale that is longer in one wave, and one that is shorter by chance', () => {
    const five = pick([1, 2, 3, 4, 5], undefined, 200);
    expect(of(twoWaves(five, pick([1, 2, 3, 4, 5, 6, 7], undefined, 200)), 'wave-drift')).toMatchObject([
      { says: 'the codes run to 7 in 2020 and only to 5 in 2019: the scale is a longer one' },
    ]);
    const rare = pick([1, 2, 3, 4, 5, 6, 7], [20, 20, 20, 20, 20, 1, 1], 200);
    expect(of(twoWaves(five, rare), 'wave-drift')).toEqual([]);
  });
});
