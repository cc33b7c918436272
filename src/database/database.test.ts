import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as z from 'zod';
import { Stopped } from '../core/extract/problem';
import { crossDocument, type CrossAsk } from '../core/inspect/crossing';
import { Inspector } from '../core/inspect/inspect';
import { rowsDocument } from '../core/inspect/rows-document';
import type { RowsDocument, RowsWanted } from '../core/inspect/rows-schema';
import type { Inspection } from '../core/inspect/schema';
import { rowsAsked } from '../core/inspect/settled';
import { measureIn, sideOf, weightIn } from '../core/inspect/sides';
import { askedFrom, cellsSentSchema, FarAsks, rowsSentSchema } from '../core/intake/asked-far';
import type { TableWanted } from '../core/intake/sent';
import { readExtract } from '../core/intake/receive';
import type { Entry } from '../core/log/entries';
import { entry, sieve } from '../testing/entries';
import { foldLog } from '../core/log/fold';
import { sourceOf } from '../core/read/source';
import type { Condition } from '../core/sieve/condition';
import { demoFiles } from '../demo/files';
import { asText, Cluster } from '../testing/postgres';
import { namesIn, tablesIn } from './catalogue';
import { Connection } from './connection';
import { listIn, rangeIn } from './said';
import { TableSource } from './source';

let cluster: Cluster;
beforeAll(async () => {
  cluster = await Cluster.start();
}, 60_000);
afterAll(() => cluster?.drop());

interface Open {
  source: TableSource;
  inspector: Inspector;
  connection: Connection;
}
let connections: Connection[] = [];
const connect = async (address = cluster.address()): Promise<Connection> => {
  const made = await Connection.open(address);
  connections.push(made);
  return made;
};
const closeAll = async (): Promise<void> => {
  for (const one of connections) await one.close();
  connections = [];
};
const open = async (
  wanted: TableWanted | string,
  { log = [], most, address }: { log?: Entry[]; most?: number; address?: string } = {},
): Promise<Open> => {
  const connection = await connect(address);
  const named = typeof wanted === 'string' ? { table: wanted } : wanted;
  const source = await TableSource.open(connection, named, [], { most });
  let inspector = new Inspector(source.extract);
  inspector.lay(foldLog(log));
  const complete = await source.withQuartiles(inspector);
  if (complete) {
    inspector = new Inspector(complete);
    inspector.lay(foldLog(log));
  }
  const rows = source.rows(inspector.received);
  if (rows) await inspector.countAll(rows);
  return { source, inspector, connection };
};
const fromFile = async (text: string, log: Entry[] = []): Promise<Inspector> => {
  const inspector = new Inspector(await readExtract([{ source: sourceOf('rows.csv', text) }]));
  inspector.lay(foldLog(log));
  return inspector;
};
/** What the server's own `COPY` writes of a table. */
const copied = (query: string): string =>
  execFileSync(
    'psql',
    ['-qAt', '-d', cluster.address(), '-c', `COPY (${query}) TO STDOUT WITH (FORMAT csv, HEADER true)`],
    { encoding: 'utf8', maxBuffer: 1 << 28, env: { ...process.env, PGTZ: 'UTC' } },
  );

const HOW = { withMissing: true, binned: false };
describe('the demo in a database', () => {
  const file = demoFiles().find(({ name }) => name === 'upkeep_2022.csv');
  const text = file?.text.replaceAll('\r\n', '\n') ?? '';
  const names = text.slice(0, text.indexOf('\n')).split(',');

  beforeAll(async () => {
    await cluster.sql(asText('upkeep', names));
    await cluster.load('upkeep', text);
    // As the types that its cells have.
    const found = (await fromFile(text)).document().variables;
    const types = found.map(({ name, storage, frequencies, counts }) => {
      const plain = counts.unreadable === 0 && frequencies.every(({ code }) => /^-?\d{1,9}$/.test(code));
      const type = storage === 'integer' && plain ? 'integer' : 'text';
      return `${JSON.stringify(name)} ${type}`;
    });
    await cluster.sql(`CREATE TABLE typed (${types.join(', ')}, PRIMARY KEY (${JSON.stringify(names[0])}))`);
    await cluster.load('typed', text);
  }, 60_000);
  afterAll(closeAll);

  it.each(['upkeep', 'typed'])('is inspected as the file is, as %s', async (table) => {
    const { inspector } = await open(table);
    const order = table === 'typed' ? `ORDER BY ${JSON.stringify(names[0])}` : '';
    const file = await fromFile(copied(`SELECT * FROM ${table} ${order}`));
    const [found, expected] = [inspector.document(), file.document()];
    expect(found.rows).toBe(expected.rows);
    expect(found.variables).toEqual(expected.variables);
    expect(found.flags).toEqual(expected.flags);
    expect(found.source.database).toMatchObject({ table });
    expect(found.source.database?.statements).toBeLessThan(10);
  });

  it('is counted on the server where only some rows are held, and says what is of those', async () => {
    const { inspector, connection } = await open('upkeep', { most: 500 });
    const [found, expected] = [inspector.document(), (await fromFile(text)).document()];
    for (const [i, { name, counts, frequencies, statistics, kind }] of expected.variables.entries())
      expect(found.variables[i]).toMatchObject({ name, counts, frequencies, statistics, kind });
    const { pass, notices } = found.source;
    expect(pass?.rows).toBe(expected.rows);
    expect(pass?.held).toBeLessThan(900);
    expect(notices[0].says).toMatch(/counted where they are; \d+ of them, drawn at random, are held/);
    expect(connection.statements).toBeLessThan(names.length);
  });
});

describe('a table of very many different values', () => {
  const ROWS = 120_000;
  const most = 20_000;
  const text = () => copied('SELECT * FROM homes ORDER BY home');
  let file: Inspector;

  beforeAll(async () => {
    await cluster.sql(`
      CREATE TABLE homes (home integer PRIMARY KEY, rent numeric(9,2), tenure smallint, walls text, "t" double precision, seen timestamptz, kept boolean);
      INSERT INTO homes SELECT i, CASE WHEN i % 50 = 0 THEN -9 ELSE (i * 7919 % 1000003)::numeric / 100 END, 1 + i % 4,
        CASE WHEN i % 10 = 0 THEN NULL ELSE (ARRAY['stone', 'brick', 'timber'])[1 + i % 3] END,
        sqrt(i), '2020-01-01 00:00:00+00'::timestamptz + i * interval '17 seconds', i % 7 = 0
        FROM generate_series(1, ${ROWS}) i;
      ANALYZE homes`);
    file = await fromFile(text(), [missing]);
  }, 120_000);
  afterAll(closeAll);

  const missing = entry({
    type: 'declare-missing',
    variables: ['rent'],
    codes: [{ code: '-9.00', reason: 'no-answer' }],
    rule: null,
    why: null,
  });

  it('has exact counts, ends, moments, quartiles and frequencies, by few statements', async () => {
    const { inspector, connection } = await open('homes', { log: [missing], most });
    const [found, expected] = [inspector.document(), file.document()];
    expect(found.rows).toBe(ROWS);
    for (const [i, { name, counts, statistics, kind, role }] of expected.variables.entries()) {
      const told = found.variables[i];
      expect(told).toMatchObject({ name, counts, kind, role });
      expect(told.distinctError).toBeUndefined();
      for (const [figure, value] of Object.entries(statistics))
        if (typeof value === 'number')
          expect(told.statistics[figure as 'mean'] ?? NaN, `${name} ${figure}`).toBeCloseTo(value, 5);
        else if (figure !== 'mode')
          expect([name, figure, told.statistics[figure as 'min']]).toEqual([name, figure, value]);
    }
    expect(found.variables[1].frequencies[0]).toMatchObject({
      code: '-9.00',
      count: ROWS / 50,
      missing: true,
    });
    expect(found.variables[1].frequenciesComplete).toBe(false);
    // The catalogue, the rows held, one pass for what has few values, one each for home, rent, t and seen, and one for quartiles.
    expect(connection.statements).toBeLessThan(15);
  }, 60_000);

  it('has identifiers that repeat flagged, however many values there are', async () => {
    await cluster.sql(`CREATE TABLE twice AS SELECT 500000 + i AS hhid, i % 7 AS n FROM generate_series(1, 104000) i;
      UPDATE twice SET hhid = 500001 WHERE hhid IN (500010, 500020); UPDATE twice SET hhid = 500002 WHERE hhid = 500030`);
    const flagged = ({ flags }: Inspection): unknown[] =>
      flags
        .filter(({ rule }) => rule === 'duplicate-identifier')
        .map(({ variables, codes, rows, severity }) => [variables, codes, rows, severity]);
    const found = (await open('twice', { most: 5000 })).inspector.document();
    expect(flagged(found)).toEqual([[['hhid'], ['500001', '500002'], 5, 'high']]);
    expect(found.source.pass?.leftOut).toEqual(['duplicate-row', 'summary-row', 'straight-lining']);
    expect(flagged((await fromFile(copied('SELECT * FROM twice ORDER BY ctid'))).document())).toEqual(
      flagged(found),
    );
  }, 60_000);

  it('is sieved and crossed on the server, with the account of each condition', async () => {
    const conditions: Condition[] = [
      { variable: 'rent', from: 100, to: 4000 },
      { any: [{ variable: 'walls', codes: ['stone'] }, { not: { variable: 'home', contains: '7' } }] },
      { variable: 'tenure', codes: ['1', '3', '4'] },
      { variable: 'seen', from: '2020-01-10', to: '2020-02-10' },
    ];
    const log = [missing, sieve(...conditions)];
    const { inspector } = await open('homes', { log, most });
    const sieved = await fromFile(text(), log);
    expect([inspector.rowCounts, inspector.account]).toEqual([sieved.rowCounts, sieved.account]);
    const [found, expected] = [inspector.document(), sieved.document()];
    for (const [i, { name, counts, statistics }] of expected.variables.entries()) {
      expect(found.variables[i]).toMatchObject({ name, counts });
      for (const figure of ['min', 'max', 'mean', 'median', 'q1', 'q3'] as const)
        if (typeof statistics[figure] === 'number')
          expect(found.variables[i].statistics[figure] ?? NaN, `${name} ${figure}`).toBeCloseTo(
            statistics[figure],
            5,
          );
    }
    const ask: CrossAsk = {
      down: 'tenure',
      across: 'walls',
      within: null,
      weight: 't',
      measure: null,
      withMissing: true,
      small: 5,
    };
    for (const one of [
      ask,
      { ...ask, across: 'kept', weight: null },
      { ...ask, weight: null, measure: 'rent' },
    ]) {
      const [mine, theirs] = [await crossDocument(inspector, one), await crossDocument(sieved, one)];
      expect(rounded(mine)).toEqual(rounded(theirs));
    }
  }, 60_000);

  it('takes numbers without room, and what only looks like one, for what they are', async () => {
    await cluster.sql(`CREATE TABLE odd AS SELECT (i * 7919 % 1000003)::float8 / 8 AS f, (i * 7919 % 1000003)::numeric AS n, (i * 7919 % 1000003)::text AS s FROM generate_series(1, 101000) i;
      INSERT INTO odd VALUES ('NaN', 'NaN', '1e999'), ('Infinity', repeat('9', 400)::numeric, repeat('9', 400)), (1e-300, 1e-300, '0x1f'), (-3.5, -3.5, ' -3.5 '), (NULL, NULL, '')`);
    const [found, expected] = [
      (await open('odd', { most: 4000 })).inspector.document(),
      (await fromFile(copied('SELECT * FROM odd'))).document(),
    ];
    for (const [i, { name, kind, counts, statistics }] of expected.variables.entries()) {
      const { distinct: _, ...rows } = counts;
      expect(found.variables[i]).toMatchObject({ name, kind, counts: rows });
      expect(found.variables[i].statistics.mean ?? NaN).toBeCloseTo(statistics.mean ?? 0, 4);
      expect([name, found.variables[i].statistics.min]).toEqual([name, statistics.min]);
    }
  }, 60_000);

  it('is asked from afar, as JSON, to the same answers', async () => {
    const conditions: Condition[] = [
      { variable: 'rent', from: 100 },
      { not: { variable: 'walls', codes: ['brick'] } },
      {
        any: [
          { variable: 't', to: 200 },
          { variable: 'seen', answered: false },
        ],
      },
    ];
    const { inspector, source, connection } = await open('homes', {
      log: [missing, sieve(...conditions)],
      most,
    });
    inspector.lay(
      foldLog([
        missing,
        sieve(...conditions),
        entry({ type: 'set-aside', rows: inspector.nameRows([5]), why: null }),
      ]),
    );
    const near = source.rows(inspector.received);
    const asked = rowsAsked(inspector);
    if (!near || !asked) throw new Error('nothing to ask');
    const asks = new FarAsks(inspector.received);
    const { down, across } = {
      down: sideOf(inspector, 'tenure', HOW),
      across: sideOf(inspector, 'walls', HOW),
    };
    const by = [down.categories, across.categories];
    const weight = weightIn(inspector, 't');
    const cells = [asks.cells(by, weight, null), asks.cells(by, null, measureIn(inspector, 'rent'))];
    const sent = rowsSentSchema.parse(JSON.parse(JSON.stringify(asks.rows(asked, cells))));
    const [one, two] = z.array(cellsSentSchema).parse(JSON.parse(JSON.stringify(cells)));
    const far = await TableSource.far(connection, { table: 'homes' }, sent);
    const there = askedFrom(sent);
    expect(await far.kept(there.asked, false)).toEqual(await near.kept(asked, false));
    const counting = far.counting(there.asked);
    expect(
      await counting.cross(one.by.map(there.categories), null, one.weight && there.numbers(one.weight)),
    ).toEqual(await near.counting(asked).cross(by, null, weight));
    if (!two.measure) throw new Error('nothing to measure');
    expect(await counting.measured(two.by.map(there.categories), there.numbers(two.measure), null)).toEqual(
      await near.counting(asked).measured(by, measureIn(inspector, 'rent'), null),
    );
  }, 60_000);

  it('lists its rows in any order, kept and dropped, found and not, with their numbers', async () => {
    const log = [
      missing,
      sieve({ variable: 'rent', from: 100, to: 4000 }, { variable: 'tenure', codes: ['2'] }),
    ];
    const { inspector, source } = await open('homes', { log, most });
    const sieved = await fromFile(text(), log);
    const wanted: RowsWanted = {
      variables: ['home', 'rent', 'walls', 'seen'],
      sort: [],
      find: null,
      dropped: false,
      from: 0,
      take: 5,
    };
    const asks: Partial<RowsWanted>[] = [
      {},
      { from: 100, sort: [{ variable: 'rent', down: true }] },
      {
        sort: [
          { variable: 'walls', down: false },
          { variable: 'seen', down: true },
        ],
      },
      { dropped: true, sort: [{ variable: 'rent', down: false }], take: 8 },
      { find: 'TIMBER', from: 3 },
      { find: '777', dropped: true },
      { from: 1e6 },
    ];
    for (const ask of asks) {
      const all = source.rows(inspector.received);
      const found = await rowsDocument(inspector, { ...wanted, ...ask }, all);
      const expected = await rowsDocument(sieved, { ...wanted, ...ask });
      const bare = ({ records, ...rest }: RowsDocument): object => ({
        ...rest,
        records: records.map(({ row, failed, cells }) => ({ row, failed, cells })),
      });
      expect(bare(found)).toEqual(bare(expected));
    }
  }, 60_000);

  it('leaves rows out by their key that were set aside', async () => {
    const { inspector, source } = await open('homes', { most });
    const log = [entry({ type: 'set-aside', rows: inspector.nameRows([0, 1, 2]), why: null })];
    inspector.lay(foldLog(log));
    const rows = source.rows(inspector.received);
    if (rows) await inspector.countAll(rows);
    const ask: CrossAsk = {
      down: 'tenure',
      across: null,
      within: null,
      weight: null,
      measure: null,
      withMissing: true,
      small: 5,
    };
    expect((await crossDocument(inspector, ask)).base.rows).toBe(ROWS - 3);
  }, 60_000);

  it('is stopped on the server, and says that it was', async () => {
    const connection = await connect();
    const asked = connection.rows({ text: 'SELECT count(*) FROM homes a, homes b' });
    setTimeout(() => void connection.stop(), 200);
    await expect(asked).rejects.toBeInstanceOf(Stopped);
    await expect
      .poll(async () =>
        cluster.sql(
          `SELECT 1 FROM pg_stat_activity WHERE query LIKE '%homes a, homes b%' AND state = 'active' AND pid <> pg_backend_pid()`,
        ),
      )
      .toEqual([]);
  }, 60_000);
});

/** Figures of weights are sums in another order. */
const rounded = (of: unknown): unknown =>
  JSON.parse(JSON.stringify(of), (_, value: unknown) =>
    typeof value === 'number' ? Number(value.toPrecision(9)) : value,
  );

describe('what the catalogue says', () => {
  afterAll(closeAll);

  it('becomes labels, codes and ranges', async () => {
    await cluster.sql(`
      CREATE TYPE heat AS ENUM ('none', 'stove', 'boiler');
      CREATE TABLE regions (code integer PRIMARY KEY, called text);
      INSERT INTO regions VALUES (1, 'Fen'), (2, 'Ost');
      CREATE TABLE said (id bigint PRIMARY KEY, warm heat, region integer REFERENCES regions, tenure text CHECK (tenure IN ('o', 'r', 'it''s')),
        age integer CHECK (age >= 0 AND age <= 120), price numeric, tags text[], doc json);
      COMMENT ON TABLE said IS 'Homes of the panel';
      COMMENT ON COLUMN said.age IS 'Age in years';
      INSERT INTO said SELECT i, (ARRAY['none', 'stove', 'boiler'])[1 + i % 3]::heat, 1 + i % 2, 'o', 20 + i % 50, i / 3.0, ARRAY['a', 'b'], '{"a": 1}' FROM generate_series(1, 60) i`);
    const { inspector } = await open('said');
    const entryIn = (name: string) => inspector.received.variables.find((one) => one.name === name)?.entry;
    expect(inspector.received.codebooks[0]).toMatchObject({ form: 'catalogue', title: 'Homes of the panel' });
    expect(entryIn('age')).toMatchObject({ label: 'Age in years', validRanges: [{ min: 0, max: 120 }] });
    const codes = (name: string) => entryIn(name)?.categories.map(({ code, label }) => [code, label]);
    expect(codes('warm')).toEqual([
      ['none', null],
      ['stove', null],
      ['boiler', null],
    ]);
    expect(codes('region')).toEqual([
      ['1', 'Fen'],
      ['2', 'Ost'],
    ]);
    expect(codes('tenure')).toEqual([
      ['o', null],
      ['r', null],
      ["it's", null],
    ]);
    const file = await fromFile(copied('SELECT * FROM said ORDER BY id'));
    for (const { name, counts, frequencies } of file.document().variables)
      expect(inspector.document().variables.find((one) => one.name === name)?.counts).toEqual(
        counts ?? frequencies,
      );
  });

  it.each<[string, string[]]>([
    ["CHECK ((tenure = ANY (ARRAY['o'::text, 'r'::text])))", ['o', 'r']],
    ['CHECK ((code = ANY (ARRAY[1, 2, 3])))', ['1', '2', '3']],
    [
      "CHECK (((tenure)::text = ANY ((ARRAY['a,b'::character varying, 'c)'::character varying])::text[])))",
      ['a,b', 'c)'],
    ],
    ['CHECK ((code > 3))', []],
  ])('%s lists %j', (says, codes) => expect(listIn(says)).toEqual(codes));

  it.each<[string, object[]]>([
    ['CHECK (((age >= 0) AND (age <= 120)))', [{ min: 0, max: 120 }]],
    ["CHECK ((rent >= '-5'::integer))", [{ min: -5, max: null }]],
    ['CHECK ((a >= b))', []],
    ['CHECK ((age >= 0) OR (age IS NULL))', []],
  ])('%s gives %j', (says, ranges) => expect(rangeIn(says)).toEqual(ranges));

  it.each<[string, string[] | null]>([
    ['public.homes', ['public', 'homes']],
    ['"A ""b"" .c".Homes', ['A "b" .c', 'homes']],
    ['homes; DROP TABLE homes', null],
    ['', null],
    ['"open', null],
  ])('%s is named %j', (named, names) => expect(namesIn(named)).toEqual(names));
});

describe('a table partitioned over two further servers', () => {
  const parts: Cluster[] = [];
  beforeAll(async () => {
    parts.push(await Cluster.start(), await Cluster.start());
    await cluster.sql(
      'CREATE EXTENSION postgres_fdw; CREATE TABLE pooled (id integer, town text, rent integer) PARTITION BY HASH (id)',
    );
    for (const [i, part] of parts.entries()) {
      await part.sql('CREATE TABLE part (id integer, town text, rent integer)');
      const { port, password } = new URL(part.address());
      await cluster.sql(`
        CREATE SERVER far${i} FOREIGN DATA WRAPPER postgres_fdw OPTIONS (host '127.0.0.1', port '${port}', dbname 'postgres');
        CREATE USER MAPPING FOR CURRENT_USER SERVER far${i} OPTIONS (user 'dig', password '${decodeURIComponent(password).replaceAll("'", "''")}');
        CREATE FOREIGN TABLE pooled${i} PARTITION OF pooled FOR VALUES WITH (MODULUS 2, REMAINDER ${i}) SERVER far${i} OPTIONS (table_name 'part')`);
    }
    await cluster.sql(
      `INSERT INTO pooled SELECT i, 'town ' || i % 20, CASE WHEN i % 9 = 0 THEN NULL ELSE i % 700 END FROM generate_series(1, 8000) i`,
    );
  }, 90_000);
  afterAll(async () => {
    await closeAll();
    for (const part of parts) part.drop();
  });

  it('is counted there, and a sample is drawn of all its parts', async () => {
    const { inspector, connection } = await open('pooled', {
      most: 1000,
      log: [sieve({ variable: 'rent', from: 100 })],
    });
    const file = await fromFile(copied('SELECT * FROM pooled'), [sieve({ variable: 'rent', from: 100 })]);
    const [found, expected] = [inspector.document(), file.document()];
    expect([found.rows, inspector.account]).toEqual([expected.rows, file.account]);
    for (const [i, { name, counts, frequencies, statistics }] of expected.variables.entries())
      expect(found.variables[i]).toMatchObject({ name, counts, frequencies, statistics });
    const held = inspector.received.variables[0].column;
    const rest = (row: number): number => Number(held.text(row)) % 2;
    expect(new Set(Array.from({ length: held.rows }, (_, row) => rest(row))).size).toBe(2);
    const plan = await connection.rows({ text: 'EXPLAIN SELECT town, count(*) FROM pooled GROUP BY town' });
    expect(plan.map(([line]) => line).join('\n')).toMatch(/Foreign Scan/);
  }, 60_000);
});

describe('hostile names and codes', () => {
  afterAll(closeAll);
  const table = `"x"";DROP TABLE said;--"`;

  it('are asked for as they are, and nothing else happens', async () => {
    await cluster.sql(`
      CREATE TABLE ${table} ("a""b; --" text, "$1" text, "SELECT" integer, "ö'\\" text, c text, n integer);
      INSERT INTO ${table} SELECT E'it''s \\\\ "x" $1 {a,b}', E'tab\\tline\\nNULL', i % 3, '\\N', '{"a,b"}', i % 5 FROM generate_series(1, 400) i`);
    const file = await fromFile(copied(`SELECT * FROM ${table}`));
    for (const most of [1000, 100]) {
      const { inspector } = await open(table, {
        most,
        log: [sieve({ variable: 'a"b; --', contains: '$1 {A' })],
      });
      expect(
        inspector
          .document()
          .variables.map(({ name, counts, frequencies }) => ({ name, counts, frequencies })),
      ).toEqual(
        file.document().variables.map(({ name, counts, frequencies }) => ({ name, counts, frequencies })),
      );
    }
    expect(await cluster.sql('SELECT count(*)::int AS n FROM said')).toEqual([{ n: 60 }]);
  });
});

describe('a query', () => {
  afterAll(closeAll);

  it('is inspected like a table', async () => {
    const { inspector } = await open({
      query: 'SELECT id, age + 1 AS "next", warm FROM said WHERE id <= 30;',
    });
    expect(inspector.document()).toMatchObject({
      rows: 30,
      variables: [{ name: 'id' }, { name: 'next' }, { name: 'warm' }],
      source: { database: { query: 'SELECT id, age + 1 AS "next", warm FROM said WHERE id <= 30;' } },
    });
  });

  it.each<[string, string, RegExp]>([
    [
      'what changes something',
      'INSERT INTO regions VALUES (9, NULL) RETURNING code',
      /cannot be read|only what reads/,
    ],
    ['a change hidden within', "SELECT * FROM (SELECT nextval('pg_catalog.x')) a", /there is no such table/],
    ['several statements', 'SELECT 1; DROP TABLE said', /cannot be read/],
    ['two columns of a name', 'SELECT id, age AS id FROM said', /two columns are called id/],
    ['nothing', '  ;', /there is no query/],
  ])('%s is refused in words', async (_, query, says) => {
    await expect(open({ query })).rejects.toThrow(says);
    expect(await cluster.sql('SELECT count(*)::int AS n FROM said')).toEqual([{ n: 60 }]);
  });
});

describe('what goes wrong', () => {
  afterAll(closeAll);
  const password = (): string => decodeURIComponent(new URL(cluster.address()).password);

  it('is told in words, without the password', async () => {
    const refused = async (address: string, table = 'said'): Promise<string> =>
      open(table, { address }).then(
        () => 'opened',
        (cause: Error) => cause.message,
      );
    await cluster.sql(
      "CREATE ROLE reader LOGIN PASSWORD 'r'; CREATE TABLE closed (a int); GRANT SELECT ON said TO reader",
    );
    const at = `127.0.0.1:${cluster.port}/postgres`;
    const reader = cluster.address('postgres', 'reader', 'r');
    expect(await refused(reader)).toBe('opened');
    expect(await refused(reader, 'closed')).toContain(`${at}, element closed: this user may not read it`);
    expect(await refused(cluster.address(), 'sad')).toMatch(
      /there is no table of this name.*near are .*said/,
    );
    expect(await refused(cluster.address(), 'a b')).toMatch(/this is no name of a table/);
    expect(await refused(cluster.address('postgres', 'dig', 'wrong'))).toContain(
      `${at}: the password was refused`,
    );
    expect(await refused(cluster.address('nowhere'))).toMatch(/there is no database of this name/);
    expect(await refused('postgres://dig@127.0.0.1:1/x')).toMatch(/no server answers there/);
    expect(await refused('mysql://a:secret@b/c')).toMatch(/no address of a PostgreSQL database/);
    expect(await refused('postgres://dig:se cret@[::1/x')).not.toContain('cret');
    for (const one of [cluster.address('nowhere'), cluster.address('postgres', 'nobody')])
      expect(await refused(one)).not.toContain(password());
  });

  it('takes the password from the environment', async () => {
    process.env.PGPASSWORD = password();
    try {
      expect(
        (await open('said', { address: cluster.address('postgres', 'dig', null) })).inspector.received.rows,
      ).toBe(60);
    } finally {
      delete process.env.PGPASSWORD;
    }
  });

  it('takes the password from a pgpass file, and says where it is missed', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'dig-pgpass-')), 'pgpass');
    writeFileSync(file, `127.0.0.1:${cluster.port}:*:reader:r\n`, { mode: 0o600 });
    const bare = cluster.address('postgres', 'reader', null);
    process.env.PGPASSFILE = file;
    try {
      expect((await open('said', { address: bare })).inspector.received.rows).toBe(60);
      process.env.PGPASSFILE = `${file}.none`;
      await expect(open('said', { address: bare })).rejects.toThrow(
        /it asks for a password; give it in PGPASSWORD/,
      );
    } finally {
      delete process.env.PGPASSFILE;
    }
  });

  it('lists the tables that a user may read', async () => {
    const reader = await connect(cluster.address('postgres', 'reader', 'r'));
    expect((await tablesIn(reader)).map(({ name }) => name)).toEqual(['public.said']);
  });

  it('a server that ends half way is told, and nothing hangs', async () => {
    const connection = await connect();
    const asked = connection.rows({ text: 'SELECT pg_sleep(30)' });
    setTimeout(() => cluster.halt(), 300);
    await expect(asked).rejects.toThrow(/the connection was lost|the server was shut down/);
    await expect(connection.rows({ text: 'SELECT 1' })).rejects.toThrow(/the connection was lost/);
    await expect(connect()).rejects.toThrow(/no server answers there/);
    cluster.go();
    expect((await open('said')).inspector.received.rows).toBe(60);
  }, 60_000);
});

describe('a server that dies in the middle of many rows', () => {
  it('is told within seconds, and what was asked ends', { timeout: 60_000 }, async () => {
    const cluster = await Cluster.start();
    try {
      const connection = await Connection.open(cluster.address());
      const asked = connection.batches(
        { text: 'SELECT i, pg_sleep(0.001)::text FROM generate_series(1, 1000000) i' },
        100,
        () => undefined,
      );
      setTimeout(() => cluster.halt(), 500);
      await expect(asked).rejects.toMatchObject({ problem: { says: expect.any(String) as string } });
      await connection.close();
    } finally {
      cluster.drop();
    }
  });
  it('gets no password but that of its own address, where that is not what the program was started with', async () => {
    const cluster = await Cluster.start();
    const before = process.env.PGPASSWORD;
    try {
      const address = new URL(cluster.address());
      process.env.PGPASSWORD = decodeURIComponent(address.password);
      address.password = '';
      await (await Connection.open(address.href)).close();
      await expect(Connection.open(address.href, { alone: true })).rejects.toMatchObject({
        problem: { says: expect.stringContaining('it asks for a password') as string },
      });
      await (await Connection.open(cluster.address(), { alone: true })).close();
    } finally {
      if (before === undefined) delete process.env.PGPASSWORD;
      else process.env.PGPASSWORD = before;
      cluster.drop();
    }
  });
});
