import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { Schema } from 'tableschema';
import { HABITS, HABITS_CELLS, HABITS_DECISIONS, HABITS_ENTRIES } from '../../../testing/habits';
import { dig, ENTRIES, HOMES, written } from '../../../testing/homes';
import type { HandoffForm } from '../handoff-forms';
import type { LeavingAsk } from '../leaving';

const from = () => dig(HABITS_CELLS, HABITS_DECISIONS, HABITS_ENTRIES);
async function textsOf(
  made: ReturnType<typeof dig>,
  form: HandoffForm,
  ask: Partial<LeavingAsk> = {},
): Promise<Record<string, string>> {
  const files = await written(made, [form], ask);
  return Object.fromEntries([...files].map(([name, bytes]) => [name, new TextDecoder().decode(bytes)]));
}
const rowsIn = (csv: string): { names: string[]; rows: string[][] } => {
  const [names, ...rows] = Papa.parse<string[]>(csv.trim()).data;
  return { names, rows };
};

describe('JSON records, read by a plain parser', () => {
  it('hold numbers as numbers and truth as truth, whatever way they were written', async () => {
    const text = (await textsOf(from(), 'json'))['made.ndjson'];
    const records = text
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
    const AS_CAME = new Set(['day', 'dmy', 'moment', 'zoned']);
    for (const [name, { cells, values }] of Object.entries(HABITS))
      expect([name, records.map((record) => record[name])]).toEqual([
        name,
        values.map((value, i) =>
          AS_CAME.has(name)
            ? cells[i]
            : value === null && cells[i].trim() !== ''
              ? Number(cells[i].replace(',', '.'))
              : value,
        ),
      ]);
    expect(text).toContain('"zeros":1.50,');
  });

  it('have no apostrophe before anything: no spreadsheet runs them', async () => {
    const text = (await textsOf(from(), 'json', { harmless: true }))['made.ndjson'];
    expect(text).not.toContain('"\'');
  });
});

describe('harmless delimited text', () => {
  it('has an apostrophe before what a spreadsheet would run, and before no number', async () => {
    const { names, rows } = rowsIn((await textsOf(from(), 'delimited', { harmless: true }))['made.csv']);
    const of = (name: string): string[] => rows.map((row) => row[names.indexOf(name)]);
    for (const name of ['commas', 'minus', 'coded', 'brackets']) expect(of(name)).toEqual(HABITS[name].cells);
    expect(of('#odd, name').slice(0, 5)).toEqual(["'=1+1", "'-", "'@x", 'plain', '# a remark']);
  });
});

interface Field {
  name: string;
  type: string;
  missingValues: { value: string }[];
  categories?: { value: string | number }[];
  constraints?: object;
}

describe('a Data Package, read by a library of the standard', () => {
  it.each([
    ['of numbers and days as people write them', from],
    ['of the nasty extract', () => dig(HOMES, [], ENTRIES)],
  ])('takes every cell as its type %s', async (_, make) => {
    const files = await textsOf(make(), 'data-package');
    const { resources } = JSON.parse(files['datapackage.json']) as {
      resources: { schema: { fields: Field[] } }[];
    };
    const { fields } = resources[0].schema;
    const { rows } = rowsIn(files['made.csv']);
    for (const [i, field] of fields.entries()) {
      // Missing values of one field, with labels, are of version 2 of the standard, which the library does not know.
      const missing = field.missingValues.map(({ value }) => value);
      const schema = await Schema.load({ fields: [field], missingValues: missing }, { strict: true });
      for (const row of rows)
        expect(() => schema.castRow([row[i]]), `${field.name}: ${row[i]}`).not.toThrow();
      const categories = field.categories?.map(({ value }) => String(value));
      if (categories)
        for (const row of rows)
          if (!missing.includes(row[i]))
            expect([field.name, categories]).toContainEqual(expect.arrayContaining([row[i]]));
    }
    const types = Object.fromEntries(fields.map(({ name, type }) => [name, type]));
    if (make === from)
      expect(types).toMatchObject({
        zeros: 'number',
        commas: 'number',
        euros: 'number',
        narrow: 'number',
        percents: 'integer',
        truth: 'boolean',
        day: 'date',
        dmy: 'date',
        moment: 'datetime',
        zoned: 'datetime',
        satisfied: 'integer',
      });
  });
});

describe('CSV on the Web, by its rules', () => {
  it('drops no row as a remark, escapes what an address does not hold, and names columns as it may', async () => {
    const made = dig({
      '.x': ['1', '2'],
      'a..b': ['1', '2'],
      'y.': ['1', '2'],
      'a.b': ['1', '2'],
      _c: ['#1', '#2'],
    });
    made.inspector.callIt('made #1?');
    const files = await textsOf(made, 'csvw');
    const told = JSON.parse(files['made #1_.csv-metadata.json']) as {
      url: string;
      dialect: { commentPrefix: unknown };
      tableSchema: { columns: { titles: string; name?: string }[] };
    };
    expect(told.dialect.commentPrefix).toBeNull();
    expect(new URL(told.url, 'https://example.org/').href).toBe('https://example.org/made%20%231_.csv');
    expect(told.tableSchema.columns.map(({ titles, name }) => [titles, name])).toEqual([
      ['.x', undefined],
      ['a..b', undefined],
      ['y.', undefined],
      ['a.b', 'a.b'],
      ['_c', undefined],
    ]);
  });

  it('says what days, truth and numbers with marks are', async () => {
    const told = JSON.parse((await textsOf(from(), 'csvw'))['made.csv-metadata.json']) as {
      tableSchema: { columns: { titles: string; datatype: unknown }[] };
    };
    const types = Object.fromEntries(
      told.tableSchema.columns.map(({ titles, datatype }) => [titles, datatype]),
    );
    expect(types).toMatchObject({
      zeros: 'double',
      commas: { base: 'double', format: { decimalChar: ',' } },
      narrow: { base: 'integer', format: { decimalChar: ',', groupChar: '\u202f' } },
      truth: { base: 'boolean', format: 'TRUE|FALSE' },
      day: { base: 'date', format: 'yyyy-MM-dd' },
      dmy: { base: 'date', format: 'dd/MM/yyyy' },
      moment: { base: 'dateTime', format: 'yyyy-MM-dd HH:mm:ss' },
      zoned: { base: 'dateTime', format: 'yyyy-MM-ddTHH:mm:ssX' },
      satisfied: 'integer',
    });
  });
});

describe('DDI-Codebook', () => {
  it('lists every code with its frequency, and the range of values', async () => {
    const xml = (await textsOf(from(), 'ddi'))['made.xml'];
    const of = (name: string): string =>
      xml.split('<var ').find((part) => part.includes(`name="${name}"`)) ?? '';
    expect(of('satisfied')).toContain(
      '<catgry><catValu>5</catValu><catStat type="freq">8</catStat></catgry>',
    );
    expect(of('truth')).toContain('<catValu>TRUE</catValu><catStat type="freq">26</catStat>');
    expect(of('zeros')).toContain('<valrng><range min="1" max="10.75"/></valrng>');
  });
});
