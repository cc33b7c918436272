import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chance } from '../../demo/random';
import { crossDocument, type CrossAsk } from '../inspect/crossing';
import { everythingDocument } from '../inspect/everything';
import { Inspector } from '../inspect/inspect';
import { rowsDocument } from '../inspect/rows-document';
import { WholeListing } from '../inspect/whole-listing';
import type { Entry } from '../log/entries';
import { entry, sieve } from '../../testing/entries';
import { foldLog } from '../log/fold';
import { lookAt } from '../read/look';
import { sourceOf } from '../read/source';
import type { Condition } from '../sieve/condition';
import { FilesAgain } from './again';
import { readExtract, type Choices } from './receive';

/** Two files of homes, of the second of which one column is not in the first. */
function homes(rows: number): string[] {
  const c = chance(11);
  const row = (i: number): string =>
    [
      `H${i}`,
      1 + c.whole(0, 3),
      c.whole(0, 19) === 0 ? -9 : (c.whole(0, 99_999) / 100).toFixed(2),
      c.whole(0, 9) === 0 ? '' : ['stone', 'brick', '"tim,ber"'][c.whole(0, 2)],
      18 + c.whole(0, 59),
    ].join(',');
  const lines = Array.from({ length: rows }, (_, i) => row(i));
  const half = rows >> 1;
  return [
    `home,rooms,rent,walls,age\n${lines.slice(0, half).join('\n')}\n`,
    `home,rooms,rent,walls,age,heat\n${lines
      .slice(half)
      .map((line, i) => `${line},${1 + (i % 3)}`)
      .join('\n')}\n`,
  ];
}

const ROWS = 4000;
const TEXTS = homes(ROWS);
const FILES = TEXTS.map((text, i) => ({ source: sourceOf(`homes_${2020 + i}.csv`, text) }));

async function opened(choices: Choices, ...entries: Entry[]): Promise<Inspector> {
  const with_ = { waveFrom: 'file-name' as const, ...choices };
  const extract = await readExtract(FILES, {}, with_);
  const inspector = new Inspector(extract);
  inspector.lay(foldLog(entries));
  if (extract.pass)
    expect(await inspector.countAll(new FilesAgain(extract, FILES, with_))).toBe(entries.length >= 0);
  return inspector;
}
const both = async (...entries: Entry[]): Promise<[Inspector, Inspector]> => [
  await opened({}, ...entries),
  await opened({ hold: 'sample', bounds: { rows: 300, texts: 1000 } }, ...entries),
];

const bands = entry({
  type: 'make-recode',
  id: 'r',
  recode: {
    name: 'old',
    of: 'age',
    bands: [
      { to: 39, code: '1' },
      { from: 40, code: '2' },
    ],
    rest: 'same',
  },
  why: null,
});
const ask = (more: Partial<CrossAsk>): CrossAsk => ({
  down: 'rooms',
  across: null,
  within: null,
  weight: null,
  measure: null,
  withMissing: false,
  small: 5,
  ...more,
});

/** A sieve in force, and a trial recode. */
const SIEVED = [
  sieve(
    { variable: 'age', from: 30 },
    {
      any: [
        { variable: 'walls', answered: false },
        { variable: 'rooms', codes: ['2'] },
      ],
    },
  ),
  bands,
];

describe('going through all rows again', () => {
  it('keeps, counts and accounts what a sieve keeps of all rows, by codes, ranges, words and not', async () => {
    const leaf = fc.oneof(
      fc.subarray(['1', '2', '3', '9'], { minLength: 1 }).map((codes) => ({ variable: 'rooms', codes })),
      fc.tuple(fc.integer({ min: 0, max: 900 }), fc.integer({ min: 0, max: 400 })).map(([from, more]) => ({
        variable: 'rent',
        from,
        to: from + more,
      })),
      fc.boolean().map((answered) => ({ variable: 'walls', answered })),
      fc.constantFrom('H1', 'H22', '9').map((contains) => ({ variable: 'home', contains })),
      fc.constantFrom('2020', '2021').map((code) => ({ variable: 'wave', codes: [code] })),
      fc.constant({ variable: 'heat', answered: true }),
    );
    const condition: fc.Arbitrary<Condition> = fc.oneof(
      leaf,
      leaf.map((not) => ({ not })),
      fc.array(leaf, { minLength: 1, maxLength: 3 }).map((any) => ({ any })),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(condition, { minLength: 1, maxLength: 3 }), async (conditions) => {
        const [held, passed] = await both(sieve(...conditions));
        expect([passed.rowCounts, passed.account]).toEqual([held.rowCounts, held.account]);
        const [all, some] = [held.document(), passed.document()];
        for (const [i, { name, counts, kind, frequencies, statistics }] of all.variables.entries()) {
          if (name === 'home' || name === 'rent') {
            const { distinct: _, ...rest } = counts;
            expect(some.variables[i].counts).toMatchObject(name === 'home' ? { all: rest.all } : rest);
          } else expect(some.variables[i]).toMatchObject({ name, counts, kind, frequencies, statistics });
        }
      }),
      { numRuns: 12 },
    );
  }, 120_000);

  it('counts cells of all rows, weighed and measured, with trial recodes and without rows set aside', async () => {
    const [held, passed] = await both(sieve({ variable: 'age', from: 20 }), bands);
    const asks: Partial<CrossAsk>[] = [
      {},
      { across: 'walls', withMissing: true },
      { across: 'old', within: 'wave' },
      { across: 'heat', weight: 'age', measure: 'rent' },
      { down: 'wave', measure: 'age' },
    ];
    for (const one of asks)
      expect(await crossDocument(passed, ask(one))).toEqual(await crossDocument(held, ask(one)));
    const names = ['walls', 'old', 'heat', 'age', 'rent'];
    const everything = (inspector: Inspector): Promise<unknown> =>
      everythingDocument(inspector, { down: 'rooms', weight: null }, names);
    expect(await everything(passed)).toEqual(await everything(held));
  });

  it('leaves rows out that were set aside, and goes through the files once for many tables', async () => {
    let opened_ = 0;
    const files = FILES.map(({ source }) => ({
      source: { ...source, open: () => (opened_++, source.open()) },
    }));
    const choices: Choices = { hold: 'sample', bounds: { rows: 300, texts: 1000 } };
    const extract = await readExtract(files, {}, choices);
    const inspector = new Inspector(extract);
    inspector.lay(foldLog([entry({ type: 'set-aside', rows: inspector.nameRows([3, 4]), why: null })]));
    await inspector.countAll(new FilesAgain(extract, files, choices));
    opened_ = 0;
    await crossDocument(inspector, ask({}));
    const once = opened_;
    opened_ = 0;
    const tables = await Promise.all(
      ['walls', 'age', 'heat'].map((across) => crossDocument(inspector, ask({ across, withMissing: true }))),
    );
    expect(tables.map(({ base }) => base.rows)).toEqual([ROWS - 2, ROWS - 2, ROWS - 2]);
    expect([once > 0, opened_]).toEqual([true, once]);
  });

  it('numbers the rows of a sample, and their lines, by where they stand in the file', async () => {
    const [held, passed] = await both();
    const wanted = { variables: ['home'], sort: [], find: null, dropped: false, from: 0 };
    const all = (await rowsDocument(held, { ...wanted, take: ROWS })).records;
    const some = (await rowsDocument(passed, { ...wanted, take: 1000 })).records;
    expect(some.length).toBeGreaterThan(200);
    for (const record of some) expect(record).toEqual(all[record.row - 1]);
  });

  it('lists records of all rows as those of all rows held are listed: kept, dropped, sorted, found', async () => {
    const variables = ['home', 'rooms', 'rent', 'walls', 'age', 'heat', 'wave', 'old'];
    const wanted = fc.record({
      variables: fc.subarray(variables, { minLength: 1 }),
      sort: fc
        .subarray(variables, { maxLength: 3 })
        .chain((names) =>
          fc
            .array(fc.boolean(), { minLength: names.length, maxLength: names.length })
            .map((down) => names.map((variable, i) => ({ variable, down: down[i] }))),
        ),
      find: fc.constantFrom(null, null, '22', 'BRICK', 'tim,', 'none such'),
      dropped: fc.boolean(),
      from: fc.constantFrom(0, 0, 7, 1500, ROWS * 2),
      take: fc.constantFrom(1, 20, 300),
    });
    const held = await opened({}, ...SIEVED);
    const choices: Choices = { hold: 'sample', bounds: { rows: 300, texts: 1000 }, waveFrom: 'file-name' };
    const passed = await opened(choices, ...SIEVED);
    const all = new FilesAgain(passed.received, FILES, choices);
    await fc.assert(
      fc.asyncProperty(wanted, async (ask) => {
        const [expected, listed] = [await rowsDocument(held, ask), await rowsDocument(passed, ask, all)];
        expect(listed).toEqual(expected);
      }),
      { numRuns: 60 },
    );
  }, 120_000);

  it('lists records without rows set aside, and reads no further than it must', async () => {
    let bytes = 0;
    const texts = homes(60_000);
    const files = texts
      .map((text, i) => sourceOf(`homes_${2020 + i}.csv`, text))
      .map((source) => ({
        source: {
          ...source,
          open: async function* () {
            for await (const part of source.open())
              for (let at = 0; at < part.length; at += 4096) {
                bytes += Math.min(4096, part.length - at);
                yield part.subarray(at, at + 4096);
              }
          },
        },
      }));
    const choices: Choices = { hold: 'sample', bounds: { rows: 300, texts: 1000 } };
    const extract = await readExtract(files, {}, choices);
    const inspector = new Inspector(extract);
    const gone = extract.pass?.places?.[0] ?? -1;
    inspector.lay(foldLog([entry({ type: 'set-aside', rows: inspector.nameRows([0]), why: null })]));
    const all = new FilesAgain(extract, files, choices);
    bytes = 0;
    const ask = { variables: ['home'], sort: [], find: null, dropped: false, from: 0, take: 40 };
    const { records } = await rowsDocument(inspector, ask, all);
    const rows = Array.from({ length: 41 }, (_, i) => i + 1).filter((row) => row !== gone + 1);
    expect(records.map(({ row }) => row)).toEqual(rows.slice(0, 40));
    expect(records[0].cells[0].raw).toBe(`H${rows[0] - 1}`);
    expect(bytes).toBeLessThan((texts[0].length + texts[1].length) * 0.6);
    await expect(
      rowsDocument(inspector, { ...ask, sort: [{ variable: 'home', down: true }], from: 100_000 }, all),
    ).rejects.toThrow(/sorting comes to the first 100000 rows/);
  });

  it.each([
    ['plain', (text: string) => text],
    ['with a byte order mark', (text: string) => `\uFEFF${text}`],
    ['quoted, with line breaks in cells', (text: string) => text.replace(/stone/g, '"sto\nne"')],
    ['with a ragged row', (text: string) => text.replace('H77,', 'H77,9,9,9,9,9,9,9,')],
    ['in another encoding', (text: string) => Buffer.from(text.replace(/brick/g, 'brické'), 'latin1')],
    ['packed', (text: string) => gzipSync(text)],
  ])('finds a stretch of rows without those before it: %s', async (_, made) => {
    const texts = homes(60_000);
    let bytes = 0;
    const files = await Promise.all(
      texts.map(async (text, i) => {
        const source = sourceOf(`homes_${2020 + i}.csv`, made(text));
        const { slice, open } = source;
        const counted = {
          ...source,
          // Cut as a file is read, and not all at once.
          open: async function* () {
            for await (const part of open())
              for (let at = 0; at < part.length; at += 50_000) yield part.subarray(at, at + 50_000);
          },
          slice: (from: number, to: number) => {
            bytes += to - from;
            return slice?.(from, to) ?? Promise.resolve(new Uint8Array(0));
          },
        };
        return { source: counted, look: await lookAt(counted) };
      }),
    );
    const held = new Inspector(await readExtract(files, {}, { waveFrom: 'file-name' }));
    held.lay(foldLog([entry({ type: 'set-aside', rows: held.nameRows([5, 59_990]), why: null })]));
    const choices: Choices = { hold: 'sample', bounds: { rows: 300, texts: 1000 }, waveFrom: 'file-name' };
    const extract = await readExtract(files, {}, choices);
    const all = new FilesAgain(extract, files, choices);
    const variables = ['home', 'rooms', 'walls', 'heat', 'wave'];
    const lines = (
      await rowsDocument(held, { variables, sort: [], find: null, dropped: false, from: 0, take: 60_000 })
    ).records;
    bytes = 0;
    for (const [from, take] of [
      [0, 3],
      [2000, 5],
      [29_990, 30],
      [47_123, 2],
      [59_980, 50],
      [70_000, 5],
    ]) {
      const { rows } = await all.list(
        { tests: [], aside: new Set([5, 59_990]) },
        { variables, from, take, order: [], find: null, dropped: false },
      );
      expect(rows.map(({ place, texts }) => [place + 1, texts])).toEqual(
        lines.slice(from, from + take).map(({ row, cells }) => [row, cells.map(({ raw }) => raw)]),
      );
    }
    const [before, places] = [bytes, [59_999, 3, 3, 29_999, 30_000, 30_001, 44_444, 60_000]];
    const found = await all.textsAt(places, ['home', 'heat', 'wave']);
    const byPlace = new Map(lines.map(({ row, cells }) => [row - 1, cells.map(({ raw }) => raw)]));
    expect(found).toEqual(
      places.map((place) => {
        const [home, , , heat, wave] = byPlace.get(place) ?? ['', '', '', '', ''];
        return [home, heat, wave];
      }),
    );
    expect(bytes > before).toBe(!['in another encoding', 'packed'].includes(_));
    const plain = extract.files.every(({ begins }) => (begins?.length ?? 0) > 0);
    expect(plain).toBe(!['in another encoding', 'packed'].includes(_));
    expect(bytes > 0).toBe(plain);
  });

  it('shows single records of all rows where they stand, sieved, sorted and without rows set aside', async () => {
    const choices: Choices = { hold: 'sample', bounds: { rows: 300, texts: 1000 }, waveFrom: 'file-name' };
    const variables = ['home', 'rooms', 'rent', 'walls', 'heat', 'wave', 'old'];
    const some = await opened(choices);
    const aside = entry({ type: 'set-aside', rows: some.nameRows([0, 7, 150]), rule: null, why: null });
    for (const [entries, sort] of [
      [[bands, aside], []],
      [SIEVED, []],
      [
        [...SIEVED, aside],
        [
          { variable: 'walls', down: true },
          { variable: 'rent', down: false },
        ],
      ],
    ] as [Entry[], { variable: string; down: boolean }[]][]) {
      const passed = await opened(choices, ...entries);
      const all = new FilesAgain(passed.received, FILES, choices);
      const listing = await WholeListing.of(passed, all, sort);
      const ask = { variables, sort, find: null, dropped: false, from: 0, take: ROWS };
      const { records } = await rowsDocument(passed, ask, all);
      expect(listing.rows).toBe(records.length);
      expect(records.length).toBeLessThan(ROWS);
      for (const [from, take] of [
        [0, 5],
        [1990, 40],
        [records.length - 3, 64],
      ]) {
        const told = await listing.told(from, take, variables);
        expect(
          told.map(({ place: row, file, line, cells }) => ({ row, file, line, failed: [], cells })),
        ).toEqual(records.slice(from, from + take));
        for (const [i, { place, row, held }] of told.entries()) {
          expect(listing.placeOf(place)).toBe(from + i);
          expect(held).toBe(row > 0);
          if (held) expect(passed.received.pass?.places?.[row - 1]).toBe(place - 1);
        }
      }
      expect(listing.placeOf(ROWS + 1)).toBeNull();
      for (const at of [0, records.length >> 1, records.length - 1]) {
        const card = await listing.card(at);
        expect(card).toMatchObject({ at, of: records.length, place: records[at].row, all: ROWS });
        const cells = new Map(card?.cells.map(({ name, text }) => [name, text]));
        expect(variables.map((name) => cells.get(name))).toEqual(records[at].cells.map(({ raw }) => raw));
      }
      expect(await listing.card(records.length)).toBeNull();
      // What is found is what holds it, in the order of the listing, and nothing else.
      for (const sought of ['H22', '-9', 'BRICK', '2021', 'nowhere']) {
        const holds = ({ cells }: (typeof records)[number]): boolean =>
          cells.some(({ raw }) => raw.toLowerCase().includes(sought.toLowerCase()));
        const expected = records.flatMap((one, i) => (holds(one) ? [i] : []));
        expect([...(await listing.holding(sought, variables))], sought).toEqual(expected);
      }
      expect([...(await listing.holding('1', []))]).toEqual([]);
    }
  });

  it('settles nothing where cells were corrected, which all rows know nothing of', async () => {
    const choices: Choices = { hold: 'sample', bounds: { rows: 300, texts: 1000 } };
    const extract = await readExtract(FILES, {}, choices);
    const inspector = new Inspector(extract);
    const [row] = inspector.nameRows([0]);
    const from = extract.variables[1].column.text(0);
    inspector.lay(
      foldLog([
        entry({ type: 'correct-cells', cells: [{ row, variable: 'rooms', from, to: '7' }], why: null }),
      ]),
    );
    const settled = await inspector.countAll(new FilesAgain(extract, FILES, choices));
    expect([inspector.decided.corrections.length > 0, settled]).toEqual([true, false]);
    await expect(WholeListing.of(inspector, new FilesAgain(extract, FILES, choices), [])).rejects.toThrow(
      'cells were corrected or rows added in the sample',
    );
  });
});
