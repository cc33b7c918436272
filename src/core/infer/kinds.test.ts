import { describe, expect, it } from 'vitest';
import { extractOf, labels, make, type Cells } from '../../testing/made';
import type { CodebookEntry } from '../extract/extract';
import { Inspector } from '../inspect/inspect';
import { CUES } from './evidence/table';
import { WEIGHTS } from './evidence/weights';

const ROWS = 400;
const kindOf = (
  name: string,
  cells: Cells,
  others: Record<string, Cells> = {},
  entry: Partial<CodebookEntry> | null = null,
): string | undefined =>
  new Inspector(extractOf({ [name]: cells, ...others }, entry ? { [name]: entry } : {})).named(name)?.kind;
const pick = (values: (string | number)[], weights?: number[]): Cells =>
  make(ROWS, (c) => c.pick(values, weights));
const runs = (each: number): Cells => Array.from({ length: ROWS }, (_, i) => 1 + Math.floor(i / each));

describe('each class of what is easily mistaken, beside what looks like it', () => {
  it('short runs without labels are steps of a scale, unless a word says that they are names', () => {
    const cells = pick([1, 2, 3, 4, 5], [10, 20, 40, 20, 10]);
    expect(kindOf('trust', cells)).toBe('ordinal');
    expect(kindOf('region', cells)).toBe('nominal');
    expect(kindOf('n_children', pick([0, 1, 2, 3, 4], [40, 30, 20, 7, 3]))).toBe('count');
  });

  it('amounts that are mostly zero are measures, counts that are mostly zero counts', () => {
    const amount = make(ROWS, (c) => (c.odds(0.6) ? 0 : 100 * c.whole(1, 90)));
    expect(kindOf('xk', amount)).toBe('continuous');
    expect(
      kindOf(
        'xk',
        make(ROWS, (c) => (c.odds(0.6) ? 0 : Math.floor(-Math.log(1 - c.next()) * 3))),
      ),
    ).toBe('count');
  });

  it('large numbers of things are counts by their word, others measures', () => {
    const cells = make(ROWS, (c) => c.whole(4000, 9000));
    expect([kindOf('votes', cells), kindOf('births', cells), kindOf('salary', cells)]).toEqual([
      'count',
      'count',
      'continuous',
    ]);
  });

  it('units counted off with a few rows each are identifiers, blocks of many rows are not', () => {
    expect(kindOf('person', runs(4))).toBe('identifier');
    expect(kindOf('block', runs(50))).toBe('nominal');
  });

  it('codes of letters and digits that do not repeat are identifiers, sentences are texts', () => {
    const codes = Array.from({ length: ROWS }, (_, i) =>
      i % 5 ? `${String.fromCharCode(65 + (i % 26))}${i}Q` : `0${i}`,
    );
    expect(kindOf('code', codes)).toBe('identifier');
    expect(
      kindOf(
        'said',
        make(ROWS, (c, i) => `the ${c.pick(['roof', 'door'])} leaks at ${i} places and nobody comes`),
      ),
    ).toBe('text');
  });

  it('instants written as whole numbers are dates, long numbers of one length identifiers', () => {
    expect(
      kindOf(
        'time',
        make(ROWS, (c) => 1500000000000 + c.whole(0, 2 ** 31)),
      ),
    ).toBe('date');
    expect(
      kindOf(
        'chip',
        make(ROWS, (c) => `98${c.whole(1000000000000, 9999999999999)}`),
      ),
    ).toBe('identifier');
  });

  it.each(['1974Q1', '2003-H2', '2015-W07', '2009/10'])('stretches of time such as %s are dates', (first) => {
    const cells = Array.from({ length: 60 }, (_, i) =>
      first
        .replace(/^\d{4}/, String(1950 + i))
        .replace(/\/\d\d$/, `/${String((51 + i) % 100).padStart(2, '0')}`),
    );
    expect(kindOf('stretch', cells)).toBe('date');
  });

  it('brackets in words rise, whichever way they are written', () => {
    expect(
      kindOf('grp', pick(['<10000', '10000 to 14999', '15000 to 24999', '25000 to 49999', '50000+'])),
    ).toBe('ordinal');
    expect(kindOf('grp', pick(['mill', 'barn', 'well', 'gate', 'yard']))).toBe('nominal');
  });

  it('a constant that the codebook calls continuous keeps its mean', () => {
    const one = make(ROWS, () => 7);
    expect(kindOf('days', one, {}, { label: 'Days of the field period', interval: 'continuous' })).toBe(
      'continuous',
    );
    expect(kindOf('form', one)).toBe('nominal');
  });

  it('an item is of the kind of its battery, whatever its own frequencies', () => {
    const items = Object.fromEntries(
      ['b', 'c', 'd', 'e'].map((letter) => [`k_${letter}`, pick([1, 2, 3, 4, 5])]),
    );
    expect(kindOf('k_a', pick([1, 2, 3, 4, 5], [40, 5, 30, 4, 21]), items)).toBe('ordinal');
  });

  it('the end of a word does not make an identifier', () => {
    const cells = pick([1, 2, 3], [5, 80, 15]);
    expect(new Inspector(extractOf({ latino: cells })).named('latino')?.because.join()).not.toContain(
      'identifier',
    );
    expect(
      kindOf(
        'caseno',
        Array.from({ length: ROWS }, (_, i) => 7000 + 3 * i),
      ),
    ).toBe('identifier');
  });

  it('nothing but a word for nothing is empty', () => {
    expect(kindOf('q', Array<string>(ROWS).fill('NA'))).toBe('empty');
  });

  it('labels count as what they say', () => {
    expect(
      kindOf(
        'v3',
        pick([1, 2, 3, 4]),
        {},
        { label: 'How often', categories: labels({ 1: 'Never', 2: 'Rarely', 3: 'Often', 4: 'Always' }) },
      ),
    ).toBe('ordinal');
    expect(
      kindOf(
        'v3',
        pick([1, 2, 3, 4]),
        {},
        { label: 'Fuel', categories: labels({ 1: 'Gas', 2: 'Oil', 3: 'Wood', 4: 'Coal' }) },
      ),
    ).toBe('nominal');
  });
});

describe('the table of cues', () => {
  it('has a name of its own for each, kinds for it to speak of, and weights for these alone', () => {
    expect(new Set(CUES.map(({ id }) => id)).size).toBe(CUES.length);
    for (const [id, weights] of Object.entries(WEIGHTS)) {
      const cue = CUES.find((one) => one.id === id);
      expect(
        Object.keys(weights).filter((kind) => !cue?.kinds.some((one) => one === kind)),
        id,
      ).toEqual([]);
    }
  });
});
