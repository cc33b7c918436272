import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { inspectionSchema } from '../core/inspect/schema';
import { rowsSchema } from '../core/inspect/rows-schema';
import { dig, linesOf, scratch } from '../testing/dig';
import { asText, Cluster } from '../testing/postgres';

const path = scratch('database');
const ROWS = Array.from(
  { length: 300 },
  (_, i) => `H${1000 + i},${1 + (i % 3)},${i % 30 === 0 ? 99 : 18 + (i % 60)},${i % 4 ? 'stone' : ''}`,
);
const TEXT = `hhid,tenure,age,walls\n${ROWS.join('\n')}\n`;
writeFileSync(path('homes.csv'), TEXT);
writeFileSync(
  path('sieve.json'),
  JSON.stringify({
    format: 'dig-first-sieve',
    version: 1,
    name: '',
    conditions: [{ variable: 'age', from: 20, to: 40 }],
  }),
);

describe('dig on a table of a database', () => {
  let cluster: Cluster;
  let at: string[];
  beforeAll(async () => {
    cluster = await Cluster.start();
    await cluster.sql(
      `${asText('homes', ['hhid', 'tenure', 'age', 'walls'])}; ALTER TABLE homes ADD PRIMARY KEY (hhid)`,
    );
    cluster.load('homes', TEXT);
    at = ['--database', cluster.address(), '--table', 'public.homes'];
  }, 60_000);
  afterAll(() => cluster?.drop());

  it('inspect, rows, cross and handoff give what they give of the file', async () => {
    const both = async (command: string, ...args: string[]): Promise<[unknown, unknown]> => {
      const [table, file] = [
        await dig(command, ...at, ...args),
        await dig(command, path('homes.csv'), ...args),
      ];
      expect([table.code, file.code]).toEqual([0, 0]);
      expect(table.err).not.toContain('words');
      return [JSON.parse(table.out), JSON.parse(file.out)];
    };
    const [found, expected] = (await both('inspect')).map((one) => inspectionSchema.parse(one));
    expect([found.variables, found.flags, found.sets]).toEqual([
      expected.variables,
      expected.flags,
      expected.sets,
    ]);
    expect(found.source.database).toMatchObject({ table: 'public.homes' });
    expect(found.source.database?.at).not.toContain('@');
    const bare = (document: unknown): unknown =>
      rowsSchema.parse(document).records.map(({ file: _, line: __, ...one }) => one);
    const rows = await both('rows', '--sieve', path('sieve.json'), '--sort', 'age:down', '--take', '7');
    expect(bare(rows[0])).toEqual(bare(rows[1]));
    const [table, file] = await both(
      'cross',
      '--sieve',
      path('sieve.json'),
      '--down',
      'tenure',
      '--across',
      'walls',
    );
    expect(table).toEqual(file);
    const out = await dig('handoff', ...at, '--to', path('out'), '--form', 'delimited,report');
    expect(out.code).toBe(0);
    expect(readFileSync(join(path('out'), 'public.homes.csv'), 'utf8').replaceAll('\r\n', '\n')).toBe(TEXT);
  }, 120_000);

  it('takes the address from the environment, a query for a table, and a codebook beside it', async () => {
    writeFileSync(path('codes.csv'), 'variable,code,label\ntenure,1,Owned\ntenure,2,Rented\n');
    process.env.DIG_DATABASE = cluster.address();
    try {
      const { code, out } = await dig(
        ...[
          'inspect',
          '--query',
          'SELECT tenure, age FROM homes WHERE age::int < 50',
          '--codebook',
          path('codes.csv'),
        ],
      );
      expect(code).toBe(0);
      const { variables, source } = inspectionSchema.parse(JSON.parse(out));
      expect(variables[0].frequencies.map(({ label }) => label)).toEqual(['Owned', 'Rented', null]);
      expect(source.database?.query).toContain('age::int < 50');
    } finally {
      delete process.env.DIG_DATABASE;
    }
  }, 60_000);

  it.each<[string, (all: string[]) => string[], RegExp]>([
    ['a file and a table', (all) => [path('homes.csv'), ...all], /are two extracts; name one of them/],
    ['nothing', () => [], /name a file, or a table with --database and --table/],
    [
      'a table without an address',
      () => ['--table', 'homes'],
      /--database: give the address of the database/,
    ],
    [
      'an address alone',
      (all) => all.slice(0, 2),
      /name a table with --table, or write a query with --query/,
    ],
    [
      'a table and a query',
      (all) => [...all, '--query', 'SELECT 1'],
      /--table and --query name two extracts/,
    ],
    [
      'no such table',
      (all) => [...all.slice(0, 3), 'home'],
      /there is no table of this name.*near are public\.homes/,
    ],
    [
      'no such variable',
      (all) => [...all, '--columns', 'nothing'],
      /none of the wanted variables is there \(nothing\)/,
    ],
    [
      'a statement that takes too long',
      (all) => [...all.slice(0, 2), '--query', 'SELECT pg_sleep(20) AS a', '--timeout', '1'],
      /took longer than it may/,
    ],
  ])(
    '%s ends with 2 and one line',
    async (_, args, says) => {
      const { code, err, out } = await dig('inspect', ...args(at));
      expect([code, out]).toEqual([2, '']);
      expect(linesOf(err)).toHaveLength(1);
      expect(err).toMatch(says);
    },
    60_000,
  );
});
