import { tableFromIPC, type Table } from 'apache-arrow';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readParquet } from 'parquet-wasm/node';
import { beforeAll, describe, expect, it } from 'vitest';
import { demoWave, sumsOf } from '../../../testing/demo-wave';
import { HABITS, HABITS_CELLS, HABITS_DECISIONS, HABITS_ENTRIES } from '../../../testing/habits';
import { dig, written } from '../../../testing/homes';

const bytesOf = async (from: ReturnType<typeof dig>): Promise<Uint8Array> =>
  (await written(from, ['parquet'])).get('made.parquet') ?? new Uint8Array();

/** The type that each column is of, as Arrow and as SQL call it. */
const TYPES: Record<string, [arrow: string, sql: string]> = {
  zeros: ['Float64', 'DOUBLE'],
  commas: ['Float64', 'DOUBLE'],
  euros: ['Float64', 'DOUBLE'],
  narrow: ['Int32', 'INTEGER'],
  percents: ['Int32', 'INTEGER'],
  brackets: ['Float64', 'DOUBLE'],
  minus: ['Int32', 'INTEGER'],
  digits16: ['Float64', 'DOUBLE'],
  digits17: ['Float64', 'DOUBLE'],
  long20: ['Utf8', 'VARCHAR'],
  big: ['Int64', 'BIGINT'],
  blanked: ['Int32', 'INTEGER'],
  halves: ['Float64', 'DOUBLE'],
  truth: ['Bool', 'BOOLEAN'],
  day: ['Date32<DAY>', 'DATE'],
  dmy: ['Date32<DAY>', 'DATE'],
  moment: ['Timestamp<MICROSECOND>', 'TIMESTAMP'],
  zoned: ['Timestamp<MICROSECOND, UTC>', 'TIMESTAMP WITH TIME ZONE'],
  lasted: ['Utf8', 'VARCHAR'],
  stray: ['Utf8', 'VARCHAR'],
  coded: ['Float64', 'DOUBLE'],
  satisfied: ['Int32', 'INTEGER'],
  '#odd, name': ['Utf8', 'VARCHAR'],
};
/** A cell of these stands as a text where others do as a number. */
const AS_TEXT = new Set(['stray']);

/** What the cells of a column are to be: codes for no answer stay. */
const wanted = (name: string): (string | number | boolean | null)[] =>
  HABITS[name].values.map((value, i) => {
    const cell = HABITS[name].cells[i];
    if (AS_TEXT.has(name)) return cell;
    return value === null && cell.trim() !== '' ? Number(cell.replace(',', '.')) : value;
  });

describe('Parquet, read by a reader that builds on Arrow', () => {
  let table: Table;
  beforeAll(async () => {
    const bytes = await bytesOf(dig(HABITS_CELLS, HABITS_DECISIONS, HABITS_ENTRIES));
    table = tableFromIPC(readParquet(bytes).intoIPCStream());
  });

  it.each(Object.keys(HABITS))('holds %s as what it is', (name) => {
    const field = table.schema.fields.find((one) => one.name === name);
    const [type] = TYPES[name];
    expect(String(field?.type)).toBe(type);
    const cells = [...(table.getChild(name) ?? [])].map((value: unknown) => {
      if (value === null || typeof value === 'boolean') return value;
      if (type.startsWith('Date')) return new Date(Number(value)).toISOString().slice(0, 10);
      if (type.startsWith('Timestamp')) return new Date(Number(value)).toISOString().slice(0, 19);
      return typeof value === 'bigint' ? String(value) : value;
    });
    expect(cells).toEqual(wanted(name));
  });

  it('finds labels, codes and reasons in the metadata of fields', () => {
    const field = table.schema.fields.find(({ name }) => name === 'satisfied');
    expect(Object.fromEntries(field?.metadata ?? [])).toEqual({
      label: 'How satisfied',
      kind: 'ordinal',
      labels: '{"1":"Very","2":"So so","3":"So so","9":"Would not say"}',
      missing: '{"9":"refused"}',
    });
    const coded = table.schema.fields.find(({ name }) => name === 'coded');
    expect(coded?.metadata.get('missing')).toBe('{"-9":"no-answer"}');
    expect(JSON.parse(table.schema.metadata.get('PANDAS_ATTRS') ?? '')).toMatchObject({
      variables: { coded: { label: 'Grade', labels: { '1.5': 'Good' } } },
    });
  });

  it('adds up to what the columns of the demo add up to', { timeout: 120_000 }, async () => {
    const wave = demoWave();
    const demo = tableFromIPC(readParquet(await bytesOf(dig(wave.columns))).intoIPCStream());
    expect(sumsOf(wave.numbers, (name) => [...(demo.getChild(name) ?? [])].map(Number))).toEqual(
      sumsOf(wave.numbers, (name) => wave.columns[name].map(Number)),
    );
  });
});

const engine = await import('@duckdb/node-api').catch(() => null);

describe('Parquet, read by a column-store engine', () => {
  it.skipIf(!engine)('holds what it is (skipped where none is installed)', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'dig-parquet-')), 'made.parquet');
    writeFileSync(file, await bytesOf(dig(HABITS_CELLS, HABITS_DECISIONS, HABITS_ENTRIES)));
    const { DuckDBInstance } = engine as NonNullable<typeof engine>;
    const database = await (await DuckDBInstance.create()).connect();
    const asked = async (sql: string): Promise<unknown[][]> => (await database.runAndReadAll(sql)).getRows();
    expect(await asked(`select column_name, column_type from (describe select * from '${file}')`)).toEqual(
      Object.entries(TYPES).map(([name, [, sql]]) => [name, sql]),
    );
    const of = async (name: string): Promise<unknown[]> =>
      (await asked(`select cast("${name}" as varchar) from '${file}'`)).map(([text]) => text);
    expect(await of('day')).toEqual(HABITS.day.values);
    expect(await of('dmy')).toEqual(HABITS.dmy.values);
    expect(await of('moment')).toEqual(HABITS.moment.cells);
    expect(await of('truth')).toEqual(HABITS.truth.values.map(String));
    expect((await of('digits17')).map(Number)).toEqual(HABITS.digits17.values);
    expect(
      await asked(
        `select key_value_metadata['label'] from parquet_metadata('${file}') where path_in_schema = 'satisfied'`,
      ),
    ).toHaveLength(1);
  });
});
