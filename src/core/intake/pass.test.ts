import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chance } from '../../demo/random';
import { linkCodebooks } from '../codebook/link';
import { bareEntry } from '../extract/extract';
import { Inspector } from '../inspect/inspect';
import type { InspectedVariable, Inspection } from '../inspect/schema';
import { entryOf, type Entry } from '../log/entries';
import { foldLog } from '../log/fold';
import { sourceOf } from '../read/source';
import { holdingIn, roomIn } from './holding';
import { PassBuilder, Sampler } from './pass';
import { readExtract, type Choices } from './receive';

const read = async (texts: readonly string[], choices: Choices = {}): Promise<Inspector> =>
  new Inspector(
    await readExtract(
      texts.map((text, i) => ({ source: sourceOf(`homes_${2000 + i}.csv`, text) })),
      {},
      choices,
    ),
  );
const both = async (
  texts: readonly string[],
  bounds?: Choices['bounds'],
): Promise<[Inspector, Inspector]> => [
  await read(texts),
  await read(texts, { hold: 'sample', ...(bounds ? { bounds } : {}) }),
];
const variable = ({ variables }: Inspection, name: string): InspectedVariable => {
  const found = variables.find((one) => one.name === name);
  if (!found) throw new Error(`no ${name}`);
  return found;
};

/** Codes, numbers with decimals, identifiers and words, of some rows. */
function homes(rows: number, seed = 7): string {
  const c = chance(seed);
  const lines = Array.from({ length: rows }, (_, i) =>
    [
      1 + c.whole(0, 4),
      (c.whole(0, 999999) / 100).toFixed(2),
      `H${String(i).padStart(7, '0')}`,
      c.whole(0, 9) === 0 ? '' : ['stone', 'brick', 'timber'][c.whole(0, 2)],
      c.whole(0, 49) === 0 ? -9 : 18 + c.whole(0, 69),
    ].join(','),
  );
  return `rooms,rent,home,walls,age\n${lines.join('\n')}\n`;
}

describe('counts of texts that pass', () => {
  it('are exact beyond what 32 bits hold', () => {
    const sampler = new Sampler(1e10, 1);
    const builder = new PassBuilder(sampler, 10);
    const [bytes, starts, ends] = [Uint8Array.of(0x61), Uint32Array.of(0, 0), Uint32Array.of(1, 0)];
    const cells = { bytes, starts, ends, first: 0, step: 1, rows: 2 };
    builder.pushSpans(cells);
    builder.pushBlank(2 ** 32 - 3);
    builder.pushSpans(cells);
    builder.pushBlank(2 ** 32);
    builder.pushSpans(cells);
    expect([...builder.told.texts]).toEqual(['a', '']);
    expect([...builder.told.counts]).toEqual([3, 2 ** 33]);
  });

  it('tell the same of texts and of their bytes, those too that come when no more are learnt', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(fc.string({ maxLength: 5 }), fc.nat(99).map(String))), (cells) => {
        const [ofTexts, ofBytes] = [0, 1].map(() => new PassBuilder(new Sampler(1000, 1000), 3));
        ofTexts.pushFrom(
          cells.map((cell) => [cell]),
          0,
        );
        const parts = cells.map((cell) => new TextEncoder().encode(cell));
        const ends = Uint32Array.from(parts.keys(), (i) =>
          parts.slice(0, i + 1).reduce((sum, { length }) => sum + length, 0),
        );
        const starts = Uint32Array.from(parts.keys(), (i) => ends[i] - parts[i].length);
        const bytes = Uint8Array.from(parts.flatMap((part) => [...part]));
        ofBytes.pushSpans({ bytes, starts, ends, first: 0, step: 1, rows: cells.length });
        expect(ofTexts.told).toEqual(ofBytes.told);
      }),
    );
  });
});

describe('reading all rows once', () => {
  it('finds the same as holding them, where every one of them is held', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(fc.stringMatching(/^[a-c0-3 .]{0,3}$/), { minLength: 3, maxLength: 3 }), {
          minLength: 1,
          maxLength: 40,
        }),
        async (rows) => {
          const text = `a,b,c\n${rows.map((row) => row.join(',')).join('\n')}\n`;
          const [held, passed] = await both([text]);
          expect(passed.document().variables).toEqual(held.document().variables);
        },
      ),
    );
  });

  it('counts exactly what a sample could not, and says what it did not look for', async () => {
    const [held, passed] = await both([homes(6000)], { rows: 500, texts: 1000 });
    const [all, some] = [held.document(), passed.document()];
    expect(some.rows).toBe(6000);
    const { pass } = some.source;
    expect(pass?.rows).toBe(6000);
    expect(pass?.held).toBeGreaterThan(350);
    expect(pass?.held).toBeLessThan(650);
    expect(pass?.leftOut).toEqual([
      'duplicate-row',
      'duplicate-identifier',
      'summary-row',
      'straight-lining',
    ]);
    for (const name of ['rooms', 'walls', 'age']) {
      const { because: _, ...exact } = variable(all, name);
      expect(variable(some, name)).toMatchObject(exact);
      expect(variable(some, name).sampled).toBeUndefined();
    }
    expect(some.source.notices.map(({ says }) => says).join()).toMatch(
      /all 6000 rows were read.*not looked for/,
    );
    expect(passed.rowCounts).toEqual({ all: 6000, aside: 0, kept: 6000 });
  });

  it('tells rows, ends and moments of what has too many values, and estimates how many', async () => {
    const [held, passed] = await both([homes(6000)], { rows: 500, texts: 1000 });
    const [exact, told] = [variable(held.document(), 'rent'), variable(passed.document(), 'rent')];
    expect(told.sampled).toBe(passed.extract.rows);
    expect({ ...told.counts, distinct: 0 }).toEqual({ ...exact.counts, distinct: 0 });
    const { distinctError = 0 } = told;
    expect(Math.abs(told.counts.distinct / exact.counts.distinct - 1)).toBeLessThan(5 * distinctError);
    const { min, max, mean, sd, skewness, kurtosis } = told.statistics;
    expect([min, max]).toEqual([exact.statistics.min, exact.statistics.max]);
    for (const [a, b] of [
      [mean, exact.statistics.mean],
      [sd, exact.statistics.sd],
      [skewness, exact.statistics.skewness],
      [kurtosis, exact.statistics.kurtosis],
    ])
      expect(a).toBeCloseTo(b ?? NaN, 8);
    expect([told.kind, variable(passed.document(), 'home').kind]).toEqual(['continuous', 'identifier']);
    expect(told.frequenciesComplete).toBe(false);
  });

  it('takes codes that stand for no answer out of ends and moments', async () => {
    const text = `x\n${Array.from({ length: 4000 }, (_, i) => (i % 40 === 0 ? -99 : ((i * 7) % 3989) / 4)).join('\n')}\n`;
    const [held, passed] = await both([text], { rows: 300, texts: 200 });
    const missing: Entry = entryOf(
      { type: 'declare-missing', variables: ['x'], codes: [{ code: '-99', reason: 'refused' }], rule: null },
      'm',
      new Date(0),
    );
    for (const one of [held, passed]) one.lay(foldLog([missing]));
    const [exact, told] = [variable(held.document(), 'x'), variable(passed.document(), 'x')];
    expect(told.counts).toMatchObject({ missing: 100, valid: exact.counts.valid });
    expect([told.statistics.min, told.statistics.max]).toEqual([exact.statistics.min, exact.statistics.max]);
    expect(told.statistics.mean).toBeCloseTo(exact.statistics.mean ?? NaN, 8);
    expect(told.missingCodes).toEqual(exact.missingCodes);
  });

  it('says of a flag that a sample tells that it does, and not of one that all rows tell', async () => {
    const c = chance(3);
    const lines = Array.from({ length: 5000 }, () => {
      const works = 1 + c.whole(0, 1);
      return [
        works,
        works === 1 ? 1 + c.whole(0, 59) : '',
        c.whole(0, 29) === 0 ? 99 : 1 + c.whole(0, 4),
      ].join(',');
    });
    const passed = await read([`works,hours,view\n${lines.join('\n')}\n`], {
      hold: 'sample',
      bounds: { rows: 800, texts: 1000 },
    });
    const said = (rule: string): string => passed.flags.find((flag) => flag.rule === rule)?.says ?? '';
    expect(said('universe-gate')).toMatch(/\(in a sample of \d+ of 5000 rows\)$/);
    const sentinel = passed.flags.find(
      ({ rule, variables }) => rule === 'sentinel-code' && variables[0] === 'view',
    );
    expect(sentinel?.says).not.toMatch(/sample/);
    expect(sentinel?.rows).toBe(lines.filter((line) => line.endsWith(',99')).length);
  });

  it('counts what a sieve keeps in the sample, and takes rows set aside off all', async () => {
    const passed = await read([homes(3000)], { hold: 'sample', bounds: { rows: 400, texts: 1000 } });
    const before = variable(passed.document(), 'rooms').counts.valid;
    const aside = entryOf(
      { type: 'set-aside', rows: passed.nameRows([0, 1, 2]), rule: null },
      'a',
      new Date(0),
    );
    passed.lay(foldLog([aside]));
    expect(variable(passed.document(), 'rooms').counts.valid).toBe(before - 3);
    expect(passed.rowCounts).toEqual({ all: 2997, aside: 3, kept: 2997 });
    passed.lay(foldLog([]));
    expect(variable(passed.document(), 'rooms').counts.valid).toBe(before);
    const [row] = passed.nameRows([5]);
    const from = passed.extract.variables[0].column.text(5);
    const corrected = entryOf(
      { type: 'correct-cells', cells: [{ row, variable: 'rooms', from, to: '77' }], rule: null },
      'c',
      new Date(0),
    );
    passed.lay(foldLog([corrected]));
    const { counts, frequencies } = variable(passed.document(), 'rooms');
    expect([counts.all, counts.valid]).toEqual([3000, before]);
    expect(frequencies.find(({ code }) => code === '77')?.count).toBe(1);
  });

  it('knows rows that repeat the names of the columns, wherever they stand, and takes them for no observations', async () => {
    const parts = [homes(1500, 1), homes(1500, 2), homes(1500, 3)];
    const [held, passed] = await both([parts.join('')], { rows: 300, texts: 9000 });
    const repeated = passed.flags.find(({ rule }) => rule === 'repeated-header');
    expect([repeated?.rows, repeated?.says]).toEqual([2, '2 rows repeat the names of the columns']);
    expect(passed.flags.filter(({ rule }) => rule === 'mixed-content')).toEqual([]);
    for (const name of ['rooms', 'age']) {
      const { because: _, confidence: __, ...exact } = variable(held.document(), name);
      expect(variable(passed.document(), name)).toMatchObject(exact);
    }
  });

  it('holds what all rows hold against what the codebook publishes', async () => {
    const extract = await readExtract(
      [{ source: sourceOf('homes.csv', homes(2000)) }],
      {},
      {
        hold: 'sample',
        bounds: { rows: 200, texts: 9000 },
      },
    );
    const rooms = bareEntry('rooms');
    const categories = [1, 2, 3, 4, 5].map((code) => ({
      code: String(code),
      label: null,
      missing: false,
      reason: null,
      frequency: 400,
    }));
    const entries = [{ ...rooms, categories }];
    const codebook = {
      name: 'b.xml',
      form: 'ddi-codebook',
      title: null,
      cases: 2000,
      entries,
      groups: [],
      notices: [],
    } as const;
    const flags = new Inspector(linkCodebooks(extract, [{ ...codebook, groups: [], notices: [] }])).flags;
    const [flag] = flags.filter(({ rule }) => rule === 'codebook-mismatch');
    expect(flag.variables).toEqual(['rooms']);
    expect(flag.says).toMatch(/^published and arrived differ: /);
  });

  it('knows the rows of each file, and of the wave that is made of their names', async () => {
    const texts = [homes(900, 1), homes(1500, 2), homes(600, 3).replace('walls', 'roof')];
    const [held, passed] = await both(texts, { rows: 200, texts: 5000 });
    expect(passed.document().source.files.map(({ rows }) => rows)).toEqual([900, 1500, 600]);
    for (const name of ['rooms', 'walls', 'roof'])
      expect(variable(passed.document(), name).counts).toEqual(variable(held.document(), name).counts);
    const made = await read(texts, {
      hold: 'sample',
      waveFrom: 'file-name',
      bounds: { rows: 200, texts: 5000 },
    });
    expect(variable(made.document(), 'wave').frequencies.map(({ code, count }) => [code, count])).toEqual([
      ['2000', 900],
      ['2001', 1500],
      ['2002', 600],
    ]);
  });
});

describe('rows that are drawn', () => {
  it('are about as many as wanted, whatever was expected, in their order, and the same each time', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20_000 }),
        fc.integer({ min: 1, max: 20_000 }),
        (rows, expected) => {
          const sampler = new Sampler(expected, 300);
          let held: number[] = [];
          for (let from = 0; from < rows; from += 700) {
            const stay = sampler.next(Math.min(700, rows - from));
            if (stay) held = Array.from(stay, (at) => held[at]);
            held.push(...sampler.picks.map((i) => from + i));
          }
          expect(held).toEqual(sampler.places);
          expect(held.every((row, i) => i === 0 || row > held[i - 1])).toBe(true);
          expect(held.length).toBeLessThanOrEqual(Math.max(600, 700));
          if (expected <= rows && rows > 2000) expect(held.length).toBeGreaterThan(100);
        },
      ),
    );
  });
});

it('a sample is held where all rows would not fit', () => {
  const room = roomIn({ deviceMemory: 8 });
  expect(holdingIn([{ bytes: 60e6, packed: false }], room).hold).toBe('all');
  expect(holdingIn([{ bytes: 5e9, packed: false }], room).hold).toBe('sample');
  expect(holdingIn([{ bytes: 500e6, packed: true }], room).hold).toBe('sample');
  expect(roomIn({})).toBe(1e9);
});
