import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bareEntry, type CodebookEntry } from '../extract/extract';
import { tallyTexts } from '../tally/tally';
import { dayNumber, isoText, readDate } from './dates';
import { bodyOf, digitForm, edgesOf } from './edges';
import { inferKind } from './kind';
import type { Known } from './known';
import { monotone, orderOfWords } from './ladders';
import { Declarations } from './declared';
import { countsOf } from './levels';
import { levelsOf } from './read-levels';
import { inferRole } from './role';
import { stemOf } from './stem';
import { inferStorage } from './storage';
import { levelAt } from './level-list';

const entryOf = (part: Partial<CodebookEntry>): CodebookEntry => ({ ...bareEntry(''), ...part });
const codes = (...list: [string, string, boolean?][]): CodebookEntry['categories'] =>
  list.map(([code, label, missing = false]) => ({
    code,
    label,
    missing,
    reason: missing ? ('refused' as const) : null,
    frequency: null,
  }));
function known(name: string, texts: string[], entry: CodebookEntry | null = null): Known {
  const tally = tallyTexts(texts);
  const declarations = new Declarations(entry);
  const written = inferStorage(tally, { skip: (text) => declarations.missing(text) !== null });
  return {
    name,
    label: entry?.label ?? null,
    written,
    levels: levelsOf(tally, written, declarations),
    entry,
  };
}
const times = (n: number, make: (i: number) => string | number): string[] =>
  Array.from({ length: n }, (_, i) => String(make(i)));

describe('storage', () => {
  it.each([
    ['integer', ['1', '2', ' 3 ', '', '-4']],
    ['integer', ['1.0', '2.0', '3.0']],
    ['integer', [...times(95, (i) => i), 'n/k', 'n/k', 'n/k', '2 yrs', '.']],
    ['integer', [...times(60, (i) => i), ...times(25, () => 's'), ...times(9, () => '<5')]],
    [
      'date',
      [
        ...times(60, (i) => `2021-03-${String(1 + (i % 28)).padStart(2, '0')}`),
        ...times(20, () => 'pending'),
      ],
    ],
    ['integer', [...times(40, (i) => i), '.a', '.a', '.r', '.r', '.r', '#DIV/0!', '#REF!']],
    ['text', [...times(60, (i) => i), ...times(40, (i) => `${i}a`)]],
    ['text', [...times(60, (i) => i % 9), ...times(20, () => 'K')]],
    ['decimal', ['1.5', '2', '.25', '1e-3']],
    ['text', ['a', '1', 'b']],
    ['text', ['0042', '0107', '1200']],
    ['integer', ['7', '007', '12', '9']],
    ['date', ['2021-03-04', '2021-12-31', '']],
    ['date', ['31/12/2021', '04/03/2021']],
    ['date', times(20, (i) => 20210101 + i)],
    ['datetime', ['2021-03-04 10:30', '2021-03-04T23:59:59']],
    ['time', ['08:15', '23:59:01']],
    ['empty', ['', '  ', '\u00a0']],
    ['text', ['NA', 'NA', 'yes', 'no']],
  ])('is %s for %j', (storage, texts) => {
    expect(inferStorage(tallyTexts(texts)).storage).toBe(storage);
  });

  it('tells day before month from month before day by the data', () => {
    expect(inferStorage(tallyTexts(['01/02/2021', '25/02/2021'])).dateForm).toBe('dmy');
    expect(inferStorage(tallyTexts(['01/02/2021', '02/25/2021'])).dateForm).toBe('mdy');
  });
});

describe('dates', () => {
  it('are days of the calendar, there and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: -100_000, max: 100_000 }), (day) => {
        expect(readDate(isoText(day, 'date'), 'ymd')).toEqual({ storage: 'date', value: day });
      }),
    );
  });
  it('that do not exist are none', () => {
    expect(readDate('2021-06-31', 'ymd')).toBeNull();
    expect(readDate('29/02/2023', 'dmy')).toBeNull();
    expect(dayNumber(1970, 1, 2)).toBe(1);
    expect(readDate('3 March 2021', 'named')).toEqual({ storage: 'date', value: dayNumber(2021, 3, 3) });
  });
});

describe('levels', () => {
  const entry = entryOf({
    categories: codes(['1', 'Yes'], ['9', 'Refused', true]),
    missingRanges: [{ min: -9, max: -1 }],
  });

  it('gather spellings of one number, and labels meet codes by number', () => {
    const { levels } = known('x', ['1', '1.0', '1', '01', '9.0', '2'], entry).levels;
    expect(
      levels.map(({ code, spellings, count, label, standing }) => [code, spellings, count, label, standing]),
    ).toEqual([
      ['1', ['1', '1.0', '01'], 4, 'Yes', 'valid'],
      ['2', [], 1, null, 'valid'],
      ['9.0', [], 1, 'Refused', 'missing'],
    ]);
  });

  it('stand in exactly one part, and the parts add up to all rows', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('1', '1.0', '9', '-3', '', ' ', 'x', '5', '2021-01-01'), { maxLength: 50 }),
        (texts) => {
          const counts = countsOf(known('x', texts, entry).levels);
          expect(counts.blank + counts.unreadable + counts.missing + counts.notAsked + counts.valid).toBe(
            texts.length,
          );
          expect(counts.all).toBe(texts.length);
        },
      ),
    );
  });

  it('take a ruling before the codebook', () => {
    const declarations = new Declarations(entry, [{ code: '9', reason: 'not-asked' }]);
    expect(declarations.missing('9')).toMatchObject({
      reason: 'not-asked',
      declaredBy: 'ruling',
      label: 'Refused',
    });
  });

  it('keep whole numbers beyond 2^53 apart', () => {
    expect(known('x', ['9007199254740993', '9007199254740992']).levels.levels).toHaveLength(2);
  });
});

describe('kind', () => {
  const LIKERT = codes(['1', 'Never'], ['2', 'Rarely'], ['3', 'Sometimes'], ['4', 'Often'], ['5', 'Always']);
  it.each([
    ['identifier', 'hhid', times(200, (i) => `0000${1000 + i * 3}K`), null],
    ['identifier', 'rowno', times(200, (i) => i + 1), null],
    [
      'continuous',
      'income',
      times(300, (i) => 500 + ((i * 7919) % 9001)),
      entryOf({ label: 'Monthly income (crowns)' }),
    ],
    ['continuous', 'x', times(300, (i) => ((i * 37) % 100) / 10 + 0.05), null],
    [
      'nominal',
      'tenure',
      times(300, (i) => 1 + (i % 4)),
      entryOf({ categories: codes(['1', 'Owned'], ['2', 'Rented'], ['3', 'Rent free'], ['4', 'Other']) }),
    ],
    ['nominal', 'own', times(100, (i) => i % 2), null],
    ['ordinal', 'oft', times(300, (i) => 1 + (i % 5)), entryOf({ categories: LIKERT })],
    [
      'ordinal',
      'sat',
      times(300, (i) => i % 11),
      entryOf({ categories: codes(['0', 'Not at all satisfied'], ['10', 'Completely satisfied']) }),
    ],
    ['ordinal', 'how', times(90, (i) => ['never', 'sometimes', 'often', 'always'][i % 4]), null],
    [
      'ordinal',
      'band',
      times(90, (i) => 1 + (i % 3)),
      entryOf({ categories: codes(['1', 'Under 500'], ['2', '500 to 999'], ['3', '1,000 or more']) }),
    ],
    ['nominal', 'town', times(90, (i) => ['Fenwater', 'Marlhope', 'Hawmoor'][i % 3]), null],
    [
      'count',
      'kids',
      times(300, (i) => [0, 0, 0, 1, 1, 2, 3][i % 7]),
      entryOf({ label: 'Number of children' }),
    ],
    ['date', 'day', times(30, (i) => `2021-01-${String(i + 1).padStart(2, '0')}`), null],
    ['text', 'remark', times(60, (i) => `what number ${i} said about the gutter and the roof`), null],
    ['empty', 'spare', ['', '', ''], null],
    [
      'continuous',
      'age',
      [...times(300, (i) => 17 + ((i * 31) % 70)), ...times(20, () => 999)],
      entryOf({ label: 'Age (years)' }),
    ],
    ['nominal', 'cluster', times(300, (i) => 1000 + (i % 40)), entryOf({ label: 'Primary sampling unit' })],
  ])('is %s for %s', (kind, name, texts, entry) => {
    const found = inferKind(known(name, texts, entry));
    expect(found.kind).toBe(kind);
    expect(found.because.length).toBeGreaterThan(0);
    expect(found.confidence).toBeGreaterThan(0.3);
    expect(found.confidence).toBeLessThanOrEqual(0.99);
  });

  it('does not depend on the order of the rows', () => {
    const texts = times(60, (i) => (i * 7) % 9);
    expect(inferKind(known('x', [...texts].reverse()))).toEqual(inferKind(known('x', texts)));
  });
});

describe('role', () => {
  const role = (name: string, texts: string[], entry: CodebookEntry | null = null): string => {
    const all = known(name, texts, entry);
    return inferRole(all, inferKind(all)).role;
  };
  it.each([
    ['weight', 'wt_hh', times(50, (i) => (0.5 + i / 50).toFixed(2)), null],
    ['analysis', 'weight', times(50, (i) => 50 + (i % 30)), entryOf({ label: 'Body weight (kg)' })],
    ['design', 'st', times(50, (i) => i % 6), entryOf({ label: 'Sampling stratum' })],
    ['wave', 'wave', times(50, () => 2022), null],
    ['admin', 'fileid', times(50, () => 4417), null],
    ['identifier', 'hhid', times(50, (i) => `K${1000 + i}`), null],
    ['analysis', 'rooms', times(50, (i) => i % 8), null],
  ])('is %s for %s', (expected, name, texts, entry) => {
    expect(role(name, texts, entry)).toBe(expected);
  });
});

describe('ordered words', () => {
  it('are known as ladders, whatever the direction', () => {
    const order = orderOfWords(['Always', 'Often', 'Sometimes', 'Never']);
    expect(order?.ladder).toBe('frequency');
    expect(monotone(order?.ranks ?? [])).toBe(true);
    expect(
      monotone(
        orderOfWords([
          ' Preschool',
          ' 7th-8th',
          ' 11th',
          ' HS-grad',
          ' Some-college',
          ' Bachelors',
          ' Masters',
          ' Doctorate',
        ])?.ranks ?? [],
      ),
    ).toBe(true);
    expect(orderOfWords(['Gas', 'Oil', 'Wood'])).toBeNull();
    expect(orderOfWords(['Yes', 'No'])).toBeNull();
    expect(monotone(orderOfWords(['0', '1', '2', '3+'])?.ranks ?? [])).toBe(true);
    expect(orderOfWords(['18-24 years', '25-34 years', '35-44 years'])?.ladder).toBe('bands of numbers');
  });
});

it.each([
  'Excellent/Very good/Good/Fair/Poor',
  'Very healthy/Healthy/Unhealthy',
  'Daily/Several times a week/Once a week/Less than once a week/Never',
  'Better than usual/Same as usual/Less than usual/Much less than usual',
  'Increased a lot/Increased a little/Stayed the same/Decreased a little/Decreased a lot',
  'Much higher/Higher/About the same/Lower/Much lower',
  'Far too high/Too high/About right/Too low/Far too low',
  'Too much/About right/Too little',
  'Definitely true/Mostly true/Mostly false/Definitely false',
  'Very conservative/Conservative/Moderate/Liberal/Very liberal',
  'None/One/Two/Three or more',
  'Poorest/Poorer/Middle/Richer/Richest',
  'Lower class/Working class/Lower middle class/Upper middle class/Upper class',
  'Living comfortably/Coping/Difficult/Very difficult',
  'Big city/Suburbs/Town/Country village/Farm',
  'No education/Primary/Secondary/Higher',
  'Underweight/Normal/Overweight/Obese',
  'Very close/Quite close/Not close',
  'Yes, definitely/Yes, probably/No, probably not/No, definitely not',
])('%s has an order', (list) => {
  expect(monotone(orderOfWords(list.split('/'))?.ranks ?? [])).toBe(true);
});
it.each([
  'Married/Widowed/Divorced/Separated/Never married',
  'Yes/No/Maybe',
  'Owned outright/Mortgage/Rented/Free',
  'Employed/Unemployed/Retired/Student',
  'Catholic/Protestant/Other/None',
  'Detached/Semi-detached/Terraced/Flat',
  'Father/Mother/Both',
  'Urban/Rural/Mixed',
  'House/Apartment/Some other kind',
  'Private company/Government/Self-employed/No employer',
  'Boiler/Stove/No heating',
  'Car/Bus/Train/Walk/None',
  'Manager/Clerk/Farm worker/Driver',
])('%s has none', (list) => {
  expect(orderOfWords(list.split('/'))).toBeNull();
});

describe('edges', () => {
  const numeric = (values: number[]) =>
    known(
      'x',
      values.flatMap((value) => [String(value), String(value)]),
    ).levels.levels;
  it('hold the codes of sentinel form beyond the widest gap', () => {
    const { top, bottom, rest } = edgesOf(numeric([-8, -1, 1, 2, 3, 4, 97, 98, 99]));
    expect([top.map(({ code }) => code), bottom.map(({ code }) => code), rest.length]).toEqual([
      ['99', '98', '97'],
      ['-8', '-1'],
      4,
    ]);
    expect(bodyOf(numeric([1, 2, 3, 4, 5, 99]))).toHaveLength(5);
    expect(bodyOf(numeric([6, 7, 8, 9, 10]))).toHaveLength(5);
    expect(bodyOf(numeric([0, 20, 30, 200]))).toHaveLength(4);
    expect(bodyOf(numeric([0, 1950, 1970, 2001]))).toHaveLength(3);
  });
  it('of equal gaps take the inner one, unless the values within lie as far apart', () => {
    const top = (values: number[]): string[] => edgesOf(numeric(values)).top.map(({ code }) => code);
    expect(top([1, 2, 3, 4, 5, 7, 9])).toEqual(['9', '7']);
    expect(top([1, 2, 3, 5, 7, 9])).toEqual(['9']);
    expect(top([-3, -2, -1.5, 0])).toEqual(['0']);
  });
  it('leave rare codes beyond a hole out of a scale, not the end of a count', () => {
    const many = (counts: Record<number, number>) =>
      known(
        'x',
        Object.entries(counts).flatMap(([value, count]) => Array<string>(count).fill(value)),
      ).levels.levels;
    expect(bodyOf(many({ 1: 60, 2: 90, 3: 80, 4: 50, 5: 40, 7: 5, 9: 3 })).map(({ code }) => code)).toEqual([
      '1',
      '2',
      '3',
      '4',
      '5',
    ]);
    expect(bodyOf(many({ 0: 90, 1: 60, 2: 30, 3: 12, 4: 4, 5: 2, 7: 1, 9: 1 }))).toHaveLength(8);
  });
  it('leave negative codes out of what begins at zero or one, not the lower half of a quantity', () => {
    const many = (counts: [number, number][]) =>
      known(
        'x',
        counts.flatMap(([value, count]) => Array<string>(count).fill(String(value))),
      ).levels.levels;
    const low = (counts: [number, number][]): string => levelAt(bodyOf(many(counts)), 0).code;
    expect(
      low([
        [-9, 20],
        [-8, 180],
        [-2, 3],
        [-1, 4],
        [1, 30],
        [2, 50],
        [3, 60],
        [4, 90],
      ]),
    ).toBe('1');
    expect(
      low([
        [-2, 3],
        [-1, 8],
        [0, 90],
        [1, 60],
        [2, 30],
        [3, 12],
      ]),
    ).toBe('0');
    expect(
      low([
        [-5, 20],
        [-1, 20],
        [0, 90],
        [1, 60],
        [2, 30],
        [3, 12],
        [4, 9],
        [5, 8],
      ]),
    ).toBe('0');
    expect(
      bodyOf(
        many([
          [0, 90],
          [1, 40],
          [8, 4],
          [9, 5],
        ]),
      ).map(({ code }) => code),
    ).toEqual(['0', '1']);
    expect(
      low([
        [-2, 30],
        [-1, 60],
        [0, 90],
        [1, 60],
        [2, 30],
      ]),
    ).toBe('-2');
    expect(
      low([
        [-3, 2],
        [-2, 9],
        [-1, 30],
        [0, 60],
        [1, 90],
        [2, 60],
        [3, 40],
        [4, 20],
      ]),
    ).toBe('-3');
  });
  it('know the forms that such codes have', () => {
    expect(
      [9, 99, 998, 9999.9, 88, 77, 666, 9994, 95, -1, -99, -66].every((value) => digitForm(value) > 0),
    ).toBe(true);
    expect([5, 100, 150, -12, 42, 93, 7.7, 9.5].every((value) => digitForm(value) < 0)).toBe(true);
  });
});

it.each([
  ['mend_a', 'mend_'],
  ['q14b', 'q14'],
  ['own12', 'own'],
  ['own_cycle', 'own_'],
  ['age', null],
  ['x', null],
])('the stem of %s is %s', (name, stem) => {
  expect(stemOf(name)).toBe(stem);
});
