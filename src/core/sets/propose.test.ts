import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractOf, labels, make, repeat, type Cells } from '../../testing/made';
import { measured, together } from '../../testing/measured-sets';
import { themedExtracts } from '../../testing/themed';
import type { Codebook, CodebookEntry } from '../extract/extract';
import { Inspector } from '../inspect/inspect';
import { belongsTo } from './belongs';
import { averageLinkage } from './linkage';
import { partsOf } from './names';
import type { ProposedSet } from './propose';
import { topicsOfWord } from './topics';
import { contentWords, folded } from './words';

const AGREE = labels({ 1: 'Disagree', 2: 'Neither', 3: 'Agree' });
const YES_NO = labels({ 1: 'Yes', 2: 'No' });
const scale = (top = 3): Cells => make(120, (c) => c.whole(1, top));

interface Given {
  cells?: Record<string, Cells>;
  entries?: Record<string, Partial<CodebookEntry>>;
  books?: Codebook[];
}
/** An extract of variables that are given by their labels; each has a scale unless it says otherwise. */
const dig = (
  said: Record<string, string>,
  { cells = {}, entries = {}, books = [] }: Given = {},
): Inspector => {
  const extract = extractOf(
    Object.fromEntries(Object.keys(said).map((name) => [name, cells[name] ?? scale()])),
    Object.fromEntries(
      Object.entries(said).map(([name, label]) => [
        name,
        { label: label || null, categories: label ? AGREE : [], ...entries[name] },
      ]),
    ),
  );
  return new Inspector({ ...extract, codebooks: books });
};
const proposed = (said: Record<string, string>, given?: Given): ProposedSet[] => dig(said, given).proposals;
const book = (groups: Codebook['groups']): Codebook => ({
  name: 'c.xml',
  form: 'ddi-codebook',
  title: null,
  cases: null,
  entries: [],
  groups,
  notices: [],
});
const OTHERS = {
  sex: 'Sex',
  region: 'Region of residence',
  wage: 'Monthly wage',
  pet: 'Keeps a pet',
};
const named = (sets: readonly ProposedSet[], ...variables: string[]): ProposedSet | undefined =>
  sets.find((set) => set.variables.join() === variables.join());

describe('proposals of thematic sets', () => {
  // What a person would sort by hand, in several styles and languages; the floors stand a little below what is reached.
  it.each([
    ['with labels', true, true, { themes: 0.82, beyond: 0.79, batteries: 0.94, sensible: 0.87 }],
    ['without labels', false, true, { themes: 0.77, beyond: 0.73, batteries: 0.88, sensible: 0.82 }],
    ['with labels, shuffled', true, false, { themes: 0.73, beyond: 0.68, batteries: 0.9, sensible: 0.74 }],
  ] as const)('are those of a person, %s', (_, labelled, ordered, floors) => {
    const found = together(
      themedExtracts(labelled, ordered).map(
        (one) => [one, measured(one, new Inspector(one.extract).proposals)] as const,
      ),
    );
    for (const [figure, floor] of Object.entries(floors))
      expect(found[figure as keyof typeof floors], figure).toBeGreaterThanOrEqual(floor);
  });

  it('have names of words, each once, a reason, a certainty, and lump nothing', () => {
    for (const { extract } of themedExtracts(true)) {
      // Where there are no labels, names of variables are all there is.
      if (extract.variables.every(({ entry }) => entry === null)) continue;
      const sets = new Inspector(extract).proposals;
      const names = sets.map(({ name }) => name.toLowerCase());
      expect(new Set(names).size).toBe(names.length);
      for (const { name, variables, because, within, confidence } of sets) {
        expect(name).toMatch(/^\p{Lu}[\p{L}’'.-]+.\p{L}*/u);
        expect(name).not.toMatch(/\b(the|of|to|a|der|de|la|in)$/i);
        expect(because.length).toBeGreaterThan(10);
        expect(confidence).toBeGreaterThan(0.3);
        expect(confidence).toBeLessThan(1);
        expect(variables.length).toBeLessThanOrEqual(extract.variables.length / 2);
        const parent = sets.find((one) => one.name === within);
        expect(within === null || variables.every((one) => parent?.variables.includes(one))).toBe(true);
      }
    }
  });

  it('bring unlike variables of one matter together', () => {
    const sets = proposed(
      {
        region: 'Region',
        urban: 'Town or country',
        postcode: 'Postcode',
        wage: 'Monthly wage',
        rent: 'Rent paid',
        debts: 'Debts',
      },
      { cells: { wage: make(120, (c) => c.whole(100, 9000)), rent: make(120, (c) => c.whole(50, 900)) } },
    );
    expect(named(sets, 'region', 'urban', 'postcode')).toMatchObject({ name: 'Place', within: null });
    expect(named(sets, 'wage', 'rent', 'debts')).toMatchObject({ name: 'Money' });
  });

  it('take a gate with what follows from it', () => {
    const work = make(240, (c) => c.whole(1, 2));
    const asked = (cell: (c: Parameters<Parameters<typeof make>[1]>[0]) => number): Cells =>
      make(240, (c, i) => (work[i] === 1 ? cell(c) : ''));
    const sets = proposed(
      {
        ...OTHERS,
        glider: 'Owns a glider',
        glider_age: 'Its age',
        glider_use: 'Last flown, months ago',
        tea: 'Drinks tea',
      },
      {
        cells: Object.fromEntries([
          ...Object.keys(OTHERS).map((name) => [name, make(240, (c) => c.whole(1, 3))] as const),
          ['tea', make(240, (c) => c.whole(1, 3))],
          ['glider', work],
          ['glider_age', asked((c) => c.whole(1, 40))],
          ['glider_use', asked((c) => c.whole(0, 30))],
        ]),
        entries: {
          glider: { categories: YES_NO },
          glider_age: { categories: [] },
          glider_use: { categories: [] },
        },
      },
    );
    const set = sets.find(({ variables }) => variables.includes('glider'));
    expect(set?.variables.slice(0, 3)).toEqual(['glider', 'glider_age', 'glider_use']);
    expect(set?.variables).not.toContain('wage');
    expect(set?.because).toContain('a question with those that follow from it');
  });

  it('keep two parties apart that are asked the same', () => {
    const asked = { type: 'kind', age: 'age', town: 'town', helper: 'helper' };
    const of = (prefix: string, party: string): Record<string, string> =>
      Object.fromEntries(
        Object.entries(asked).map(([key, what]) => [`${prefix}_${key}`, `${party}: ${what}`]),
      );
    const sets = proposed({ ...of('by', 'Buyer'), ...of('sl', 'Seller'), tea: 'Drinks tea', rain: 'Rain' });
    expect(named(sets, ...Object.keys(of('by', '')))).toBeDefined();
    expect(named(sets, ...Object.keys(of('sl', '')))).toBeDefined();
  });

  it('set weights and markers apart from what is studied', () => {
    const sets = proposed(
      {
        ...OTHERS,
        z_wage: 'Wage: imputed',
        z_rent: 'Rent: imputed',
        wt_h: 'Household weight',
        wt_p: 'Person weight',
      },
      {
        cells: {
          z_wage: make(120, (c) => c.whole(0, 1)),
          z_rent: make(120, (c) => c.whole(0, 1)),
          wt_h: make(120, (c) => (0.5 + c.whole(0, 9999) / 9000).toFixed(4)),
          wt_p: make(120, (c) => (0.5 + c.whole(0, 9999) / 8000).toFixed(4)),
        },
        entries: {
          z_wage: { categories: [] },
          z_rent: { categories: [] },
          wt_h: { categories: [] },
          wt_p: { categories: [] },
        },
      },
    );
    expect(named(sets, 'wt_h', 'wt_p')?.name).toBe('Weights and sample');
    expect(named(sets, 'z_wage', 'z_rent')?.name).toBe('Markers of filled-in values');
  });
});

describe('batteries', () => {
  const items = (from: number, to: number, prefix = 'g'): string[] =>
    Array.from({ length: to - from + 1 }, (_, i) => `${prefix}${from + i}`);
  const said = (names: string[], label: (i: number) => string): Record<string, string> =>
    Object.fromEntries(names.map((name, i) => [name, label(i)]));
  const THINGS = [
    'soup',
    'bread',
    'cheese',
    'apples',
    'honey',
    'plums',
    'leeks',
    'rye',
    'oats',
    'figs',
    'peas',
    'nuts',
  ];

  it('go on where numbers get a digit more', () => {
    const names = items(5, 14);
    const sets = proposed({ ...OTHERS, ...said(names, (i) => `Likes ${THINGS[i]}`), last: 'Town' });
    expect(named(sets, ...names)?.name).toBe('Likes (soup, bread, …)');
  });

  it('are no dates that are written alike, nor amounts of one unit: those are of a theme alone', () => {
    const days = ['order_date', 'ship_date', 'due_date', 'paid_date'];
    const sets = proposed(
      { ...OTHERS, order_date: 'Ordered', ship_date: 'Shipped', due_date: 'Due', paid_date: 'Paid' },
      {
        cells: Object.fromEntries(
          days.map((name) => [name, make(120, (c) => `2019-0${c.whole(1, 9)}-${c.whole(10, 28)}`)]),
        ),
        entries: Object.fromEntries(days.map((name) => [name, { categories: [] }])),
      },
    );
    expect(named(sets, ...days)?.because).toMatch(/^(?!items of one question)/);
    expect(sets.filter(({ because }) => because.startsWith('items of one'))).toEqual([]);
  });

  it('are weights that resample an extract, where they are numbered', () => {
    const weights = ['wt', 'rw1', 'rw2', 'rw3', 'rw4'];
    const sets = proposed(
      {
        ...OTHERS,
        wt: 'Survey weight',
        ...said(weights.slice(1), (i) => `Replicate weight ${i + 1}`),
      },
      {
        cells: Object.fromEntries(
          weights.map((name) => [name, make(120, (c) => (0.5 + c.whole(0, 9999) / 9000).toFixed(4))]),
        ),
        entries: Object.fromEntries(weights.map((name) => [name, { categories: [] }])),
      },
    );
    expect(named(sets, ...weights.slice(1))).toMatchObject({ within: named(sets, ...weights)?.name });
  });

  it('keep an item of other codes among the others, and say so', () => {
    const names = items(1, 8, 'mend_');
    const sets = proposed(
      { ...OTHERS, ...said(names, (i) => `Mends ${THINGS[i]}`), last: 'Town' },
      {
        cells: { mend_4: make(120, (c) => c.whole(0, 40)) },
        entries: { mend_4: { categories: [] } },
      },
    );
    expect(named(sets, ...names)?.because).toContain('mend_4 with other codes');
  });

  it('are two where the codes are of two lists', () => {
    const names = items(1, 10);
    const sets = proposed(
      { ...OTHERS, ...said(names, (i) => (i < 5 ? `Likes ${THINGS[i]}` : `Ate ${THINGS[i]}`)) },
      {
        cells: Object.fromEntries(names.slice(5).map((name) => [name, scale(2)])),
        entries: Object.fromEntries(names.slice(5).map((name) => [name, { categories: YES_NO }])),
      },
    );
    expect(named(sets, ...names.slice(0, 5))?.because).toMatch(/^items of one question/);
    expect(named(sets, ...names.slice(5))?.because).toMatch(/^items of one question/);
  });

  it('are found without labels, and not among numbers that only share a prefix', () => {
    const names = items(1, 6, 'oft_');
    const sets = proposed(
      { ...said(names, () => ''), v1: '', v2: '', v3: '', v4: '' },
      {
        cells: {
          v1: make(120, (c) => c.whole(0, 90)),
          v2: make(120, (c) => c.pick(['Fenwater', 'Hawmoor'])),
          v3: make(120, (c) => (c.whole(0, 9999) / 100).toFixed(2)),
          v4: repeat(120, 'x'),
        },
      },
    );
    expect(named(sets, ...names)?.because).toMatch(/^items of one question/);
    expect(named(sets, 'v1', 'v2', 'v3', 'v4')?.because ?? '').not.toMatch(/^items/);
  });

  it('of fewer than three items are none', () => {
    const sets = proposed({ ...OTHERS, own_a: 'Has a kettle', own_b: 'Has a radio' });
    expect(sets.filter(({ because }) => because.startsWith('items'))).toEqual([]);
  });
});

describe('groups of the codebook', () => {
  const ITEMS = { own_a: 'Has a kettle', own_b: 'Has a radio', own_c: 'Has a drill', own_d: 'Has a cycle' };
  it('come first as they are nested, only with what arrived, and are not proposed twice', () => {
    const sets = proposed(
      { ...ITEMS, ...OTHERS },
      {
        books: [
          book([
            { name: 'Household', variables: ['own_a', 'own_b', 'own_c', 'own_d', 'own_gone', 'region'] },
            {
              name: 'Things owned',
              variables: ['own_a', 'own_b', 'own_c', 'own_d', 'own_gone'],
              within: 'Household',
            },
            { name: 'Elsewhere', variables: ['gone'] },
          ]),
        ],
      },
    );
    expect(sets.slice(0, 2)).toMatchObject([
      { name: 'Household', within: null, confidence: 1, from: 'codebook' },
      { name: 'Things owned', variables: ['own_a', 'own_b', 'own_c', 'own_d'], within: 'Household' },
    ]);
    expect(sets.filter(({ variables }) => variables.includes('own_b'))).toHaveLength(2);
  });

  it('have batteries within them', () => {
    const sets = proposed(
      { ...ITEMS, ...OTHERS },
      { books: [book([{ name: 'Home', variables: [...Object.keys(ITEMS), 'region'] }])] },
    );
    expect(named(sets, ...Object.keys(ITEMS))).toMatchObject({ within: 'Home', from: 'found' });
  });
});

describe('what else belongs to a set', () => {
  it('is told with its reason, the likeliest first', () => {
    const { belonging } = dig({
      mend_a: 'Mends clothes',
      mend_b: 'Mends shoes',
      mend_c: 'Mends chairs',
      wage: 'Monthly wage',
      mend_d: 'Mends clocks',
      town: 'Town',
      pets: 'Pets',
    });
    const [first, ...rest] = belongsTo(belonging, ['mend_a', 'mend_b', 'mend_c']);
    expect(first).toMatchObject({
      name: 'mend_d',
      because: expect.stringContaining('names that begin alike'),
    });
    expect(first.confidence).toBeGreaterThan(0.8);
    for (const { confidence } of rest) expect(confidence).toBeLessThan(first.confidence);
    expect(belongsTo(belonging, [])).toEqual([]);
  });
});

describe('average linkage', () => {
  /** Joins the two nearest groups again and again, by the mean over all pairs of their members. */
  const plain = (n: number, alike: readonly number[][]): number[] => {
    let groups = Array.from({ length: n }, (_, i) => [i]);
    const scores: number[] = [];
    while (groups.length > 1) {
      let best = { score: -Infinity, a: 0, b: 1 };
      groups.forEach((one, a) =>
        groups.slice(a + 1).forEach((two, k) => {
          const pairs = one.flatMap((i) => two.map((j) => alike[i][j]));
          const score = pairs.reduce((sum, x) => sum + x, 0) / pairs.length;
          if (score > best.score) best = { score, a, b: a + 1 + k };
        }),
      );
      scores.push(best.score);
      const joined = [...groups[best.a], ...groups[best.b]];
      groups = [...groups.filter((_, i) => i !== best.a && i !== best.b), joined];
    }
    return scores;
  };

  it('joins as going through all pairs again and again does', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 9 }).chain((n) =>
          fc.tuple(
            fc.constant(n),
            // So wide that two averages are hardly ever the same: of two that are, either may join first.
            fc.uniqueArray(fc.integer({ min: 1, max: 4_000_000 }), { minLength: n * n, maxLength: n * n }),
          ),
        ),
        ([n, values]) => {
          const alike = Array.from({ length: n }, (_, i) =>
            Array.from({ length: n }, (_, j) => values[Math.min(i, j) * n + Math.max(i, j)]),
          );
          const merges = averageLinkage(n, Float32Array.from(alike.flat()));
          plain(n, alike).forEach((score, i) =>
            expect(Math.abs(merges[i].score / score - 1)).toBeLessThan(1e-4),
          );
          expect(merges[n - 2].size).toBe(n);
        },
      ),
    );
  });
});

describe('words', () => {
  it('are folded to meet, say something, and keep the form in which they stand', () => {
    expect(['visits', 'visited', 'visit'].map(folded)).toEqual(['visit', 'visit', 'visit']);
    expect(['families', 'family', 'Dépenses', 'dépense'].map(folded)).toEqual([
      'family',
      'family',
      'depens',
      'depens',
    ]);
    expect([...contentWords('How often do you visit the Cafés of Ostrey?')]).toEqual([
      ['visit', 'visit'],
      ['caf', 'Cafés'],
      ['ostrey', 'Ostrey'],
    ]);
  });
  it('are about a matter, in four languages, as a whole or by how they begin', () => {
    const about = (word: string): string[] => topicsOfWord(word).map(([topic]) => topic);
    expect(about('Haushaltseinkommen')).toContain('household');
    expect(about('loyer')).toContain('money');
    expect(about('Monatseinkommen')).toContain('money');
    expect(about('escolaridad')).toContain('education');
    expect(about('xyzzy')).toEqual([]);
  });
  it('of names are taken apart', () => {
    expect(partsOf('hasRadio_12b')).toMatchObject({
      tokens: ['has', 'radio', '12', 'b'],
      words: ['has', 'radio', 'b'],
    });
    expect(partsOf('g19').patterns).toEqual(['g#']);
    expect(partsOf('v20a').patterns).toEqual(['v20@']);
    expect(partsOf('ap03_age').patterns).toEqual(['ap#_age', 'ap03_*', '*_age']);
  });
});
