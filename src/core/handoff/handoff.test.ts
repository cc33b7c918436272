import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ALL, column, DECISIONS, dig, ENTRIES, HOMES, written } from '../../testing/homes';
import { linkCodebooks } from '../codebook/link';
import { bareEntry } from '../extract/extract';
import { Inspector } from '../inspect/inspect';
import type { Inspection } from '../inspect/schema';
import { bring } from '../intake/bring';
import { readExtract } from '../intake/receive';
import { sourceOf } from '../read/source';
import { handoffOf } from './handoff';
import type { HandoffForm } from './handoff-forms';
import type { LeavingAsk } from './leaving';

const textOf = (files: ReadonlyMap<string, Uint8Array>, name: string): string =>
  new TextDecoder('utf-8', { ignoreBOM: true }).decode(files.get(name));

/** What is read again of some files. */
async function again(files: ReadonlyMap<string, Uint8Array>, ...names: string[]): Promise<Inspection> {
  const handed = names.map((name, i) => ({
    key: String(i),
    source: sourceOf(name, files.get(name) ?? new Uint8Array()),
  }));
  const { brought } = await bring(handed);
  const data = brought.filter((one) => one.what === 'data');
  expect(brought.filter(({ what }) => what === 'problem')).toEqual([]);
  const extract = await readExtract(data.map(({ source, look, layout }) => ({ source, look, layout })));
  return new Inspector(
    linkCodebooks(
      extract,
      brought.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : [])),
    ),
  ).document();
}

const number = (code: string): string | number => {
  const value = Number(code);
  return code.trim() !== '' && Number.isFinite(value) ? value : code;
};
/** What a handoff keeps of variables; numbers by value. */
const kept = (told: Inspection): unknown[] =>
  told.variables.map(({ name, label, counts, missingCodes, statistics, frequencies, unreadable, ...v }) => ({
    name,
    label,
    counts,
    statistics,
    unreadable: unreadable.map(({ text, count }) => [text, count]),
    missing: missingCodes
      .map(({ code, label: own, reason, count }) => [number(code), own, reason, count])
      .sort(),
    frequencies: frequencies.map(({ code, label: own, count, missing }) => [
      number(code),
      own,
      count,
      missing,
    ]),
    ...(v.confirmed ? { kind: v.kind } : {}),
  }));

const ROUND: Record<string, [HandoffForm, ...string[]]> = {
  'a data package': ['data-package', 'made.csv', 'datapackage.json'],
  'CSV on the Web': ['csvw', 'made.csv', 'made.csv-metadata.json'],
  'DDI-Codebook': ['ddi', 'made.csv', 'made.xml'],
  'a workbook': ['workbook', 'made.xlsx'],
  Parquet: ['parquet', 'made.parquet'],
};

describe('what a handoff wrote, read again', () => {
  const from = dig(HOMES, DECISIONS, ENTRIES);
  const before = from.inspector.document();
  it.each(Object.entries(ROUND))('as %s is the same', async (_, [form, ...names]) => {
    const told = await again(await written(from, [form]), ...names);
    const wanted = kept(before).map((one) => {
      const v = one as { name: string };
      return v.name === 'town' ? { ...v, name: 'place' } : v;
    });
    expect(kept(told)).toEqual(wanted);
  });
  it.each(Object.entries(ROUND))(
    'as %s keeps question, universe, notes and sets',
    async (_, [form, ...names]) => {
      const files = await written(from, [form]);
      const { brought } = await bring(
        names.map((name, i) => ({
          key: String(i),
          source: sourceOf(name, files.get(name) ?? new Uint8Array()),
        })),
      );
      const data = brought.filter((one) => one.what === 'data');
      const extract = linkCodebooks(
        await readExtract(data.map(({ source, look, layout }) => ({ source, look, layout }))),
        brought.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : [])),
      );
      const entry = extract.variables.find(({ name }) => name === 'tenure')?.entry;
      expect(entry).toMatchObject({ question: 'Do you own, or rent?', universe: 'All & sundry' });
      expect(entry?.notes).toEqual(['First line\nsecond line']);
      expect(entry?.categories.find(({ code }) => code === '4')?.label).toBe('Nobody has this');
      expect(extract.variables.find(({ name }) => name === 'rent')?.entry).toMatchObject({
        units: 'crowns',
        validRanges: [{ min: 0, max: 5000 }],
      });
      expect(extract.codebooks.flatMap(({ groups }) => groups)).toMatchObject([
        { name: 'Housing', variables: ['tenure', 'rent'] },
      ]);
    },
  );

  it.each(Object.entries(ROUND))('as %s keeps rows that hold nothing', async (_, [form, ...names]) => {
    const a = ['', '', 'x', '', '', '7', '', ''];
    const files = await written(dig({ a, b: a.map(() => '') }), [form]);
    const told = await again(files, ...names);
    expect(told.variables.map(({ counts }) => [counts.all, counts.blank])).toEqual([
      [8, 6],
      [8, 8],
    ]);
  });

  it('keeps a codebook entry that no one cell of a workbook has room for', async () => {
    const categories = Array.from({ length: 1500 }, (_, i) => ({
      code: String(i),
      label: `Parish number ${i} of the whole of Ostrey`,
      missing: false,
      reason: null,
      frequency: null,
    }));
    const parish = Array.from({ length: 3000 }, (_, i) => String(i % 1500));
    const from = dig(
      { parish },
      [{ type: 'confirm-kind', kinds: [{ variable: 'parish', kind: 'nominal' }] }],
      [{ ...bareEntry('parish'), label: 'Parish', categories }],
    );
    const told = await again(await written(from, ['workbook']), 'made.xlsx');
    expect(told.variables[0]).toMatchObject({ kind: 'nominal', confirmed: true, label: 'Parish' });
    expect(told.variables[0].frequencies[0].label).toBe('Parish number 0 of the whole of Ostrey');
  });

  it('is the same whatever stands in the cells', { timeout: 120_000 }, async () => {
    const text = fc.oneof(
      fc.constantFrom(
        '1',
        '2',
        '007',
        '-3.50',
        '1e5',
        '',
        ' x ',
        '"',
        'a,b',
        'x\r\ny',
        '=A1',
        '12345678901234567890',
        '2020-02-30',
      ),
      fc
        .string({ minLength: 0, maxLength: 6, unit: 'grapheme' })
        .map((one) => one.replace(/[\0-\x1f\uFEFF\u2028\u2029\x7f-\x9f]/g, '')),
    );
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(text, text), { minLength: 12, maxLength: 20 }),
        fc.constantFrom(...Object.values(ROUND)),
        async (rows, [form, ...names]) => {
          const made = dig({
            id: rows.map((_, i) => `R${i + 1}`),
            a: rows.map(([a]) => a),
            b: rows.map(([, b]) => b),
          });
          const told = await again(await written(made, [form]), ...names);
          const cells = ({ variables }: Inspection): unknown =>
            variables.map(({ name, counts, frequencies, unreadable }) => [
              name,
              counts,
              frequencies.map(({ code, count }) => [number(code), count]),
              unreadable.map(({ text: one, count }) => [one, count]),
            ]);
          expect(cells(told)).toEqual(cells(made.inspector.document()));
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('what goes out', () => {
  it('is what was chosen, with what tells rows apart unless it stays behind, and the manifest says which', () => {
    const from = dig(HOMES, DECISIONS, ENTRIES);
    const of = (ask: Partial<LeavingAsk>) =>
      handoffOf(from.inspector, from.log, { ...ALL, ...ask }, ['delimited'], new Date(0)).manifest([]);
    expect(of({ variables: ['town', 'tenure'] })).toMatchObject({
      variables: ['hhid', 'tenure', 'long', 'place'],
      wentAlong: ['hhid', 'long'],
    });
    expect(of({ variables: ['tenure'], alone: true })).toMatchObject({
      variables: ['tenure'],
      wentAlong: [],
    });
    expect(of({ variables: ['tenure'] }).leftOut).toContain('town');
  });

  it('is only the rows kept, blanked, labelled or made harmless where that is wanted', async () => {
    const from = dig(
      HOMES,
      [
        ...DECISIONS,
        {
          type: 'make-sieve',
          sieve: 'q',
          name: '',
          parts: [{ id: 'p', condition: { variable: 'hhid', codes: ['H1003', 'H1004'] }, on: true }],
          use: true,
        },
      ],
      ENTRIES,
    );
    const lines = async (ask: Partial<LeavingAsk>): Promise<string[]> =>
      textOf(
        await written(from, ['delimited'], { variables: ['hhid', 'tenure', 'remark'], alone: true, ...ask }),
        'made.csv',
      ).split('\r\n');
    expect(await lines({})).toEqual(['hhid,tenure,remark', 'H1003,9,=1+1', 'H1004,1," blanks "', '']);
    expect((await lines({ missing: 'blank' }))[1]).toBe('H1003,,=1+1');
    expect((await lines({ cells: 'labels' }))[1]).toBe('H1003,Would not say,=1+1');
    expect((await lines({ harmless: true }))[1]).toBe("H1003,9,'=1+1");
  });

  it('is JSON a line at a time, blank null', async () => {
    const files = await written(dig({ a: ['1', '7', '', '2.5'], b: ['x', '007', '', '"'] }), ['json']);
    expect(
      textOf(files, 'made.ndjson')
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line) as unknown),
    ).toEqual([
      { a: 1, b: 'x' },
      { a: 7, b: '007' },
      { a: null, b: null },
      { a: 2.5, b: '"' },
    ]);
  });

  it('is read by people without anything that runs in it', async () => {
    const hostile = '<script>alert(1)</script><img src=x onerror=y>';
    const files = await written(
      dig({ a: column((i) => (i % 2 ? hostile : 'b')) }, [
        { type: 'note', variable: 'a', text: hostile },
        { type: 'rename', variable: 'a', name: null, label: hostile },
      ]),
      ['codebook', 'report', 'ddi'],
    );
    for (const [name, bytes] of files)
      if (/html|xml/.test(name)) expect(new TextDecoder().decode(bytes)).not.toMatch(/<script|<img/);
    const book = textOf(files, 'made-codebook.html');
    expect(book).toContain('all counts are of all 60 rows');
    expect(book).toMatch(/<h2>Contents<\/h2>/);
  });

  it('is the annotated codebook with rulings and reasons, and an index by set', async () => {
    const files = await written(dig(HOMES, DECISIONS, ENTRIES), ['codebook']);
    const book = textOf(files, 'made-codebook.html');
    expect(book).toMatch(/Housing<\/strong>: <a href="#v2">/);
    expect(book).toContain('Would not say <span class="soft">(no answer: refused)</span>');
    expect(book).toContain('(town in the archive)');
    expect(book).toContain('“fenwater” taken for “Fenwater” in town');
    expect(book).toContain('tenure ordinal');
  });

  it('stands under a name that every file system takes, whatever the extract is called', async () => {
    const from = dig({ a: ['1', '2'] });
    from.inspector.callIt('../up: 1/2 ');
    expect([...(await written(from, ['delimited'])).keys()]).toEqual([
      '_up_ 1_2.csv',
      '_up_ 1_2-dig-log.json',
    ]);
  });

  it('says why nothing can go out', () => {
    const from = dig({ a: ['1'], b: ['2'] }, [{ type: 'rename', variable: 'a', name: 'b', label: null }]);
    expect(() => handoffOf(from.inspector, [], ALL, ['delimited'], new Date(0))).toThrow(/under the name b/);
  });
});
