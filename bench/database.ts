/**
 * `npm run bench:database [-- ROWS]`: seconds, statements and bytes of an inspection of a table where it is, beside that of the
 * same rows as a file, and whether both find the same. The server is one of its own on this machine, thrown away at the end: on
 * two machines its seconds and those of the client are not added.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inspectionSchema, type Inspection } from '../src/core/inspect/schema';
import { Cluster } from '../src/testing/postgres';

const ROWS = Number(process.argv[2] ?? 2_000_000);
const folder = mkdtempSync(join(tmpdir(), 'dig-bench-'));
const cluster = await Cluster.start();

/** Forty columns: codes, ages, postal codes, amounts and words, eight of each; numbers by multiplication with primes. */
const columns = Array.from({ length: 8 }, (_, k) => [
  `1 + (i * ${7919 + k}) % 7 AS code${k}`,
  `18 + (i * ${104_729 + k}) % 72 AS age${k}`,
  `(i * ${15_485_863 + k}) % 90000 AS postal${k}`,
  `((i * ${32_452_843 + k}) % 1000003)::numeric(9,2) / 100 AS rent${k}`,
  `(ARRAY['stone','brick','timber','clay','straw'])[1 + (i * ${31 + k}) % 5] AS walls${k}`,
]).flat();

interface Timed {
  seconds: number;
  processor: number;
  document: Inspection;
}
function timed(...args: string[]): Timed {
  const out = join(folder, 'out.json');
  const before = performance.now();
  const { stderr, status } = spawnSync(
    'bash',
    ['-c', 'TIMEFORMAT="time %U %S"; time npm run --silent dig -- inspect "$@" --out "$0"', out, ...args],
    { encoding: 'utf8', cwd: join(import.meta.dirname, '..') },
  );
  if (status !== 0) throw new Error(stderr);
  const [, user = '0', system = '0'] = /time (\S+) (\S+)/.exec(stderr) ?? [];
  return {
    seconds: (performance.now() - before) / 1000,
    processor: Number(user) + Number(system),
    document: inspectionSchema.parse(JSON.parse(readFileSync(out, 'utf8'))),
  };
}

try {
  await cluster.sql(
    `CREATE TABLE pooled AS SELECT i AS id, ${columns.join(', ')} FROM generate_series(1::bigint, ${ROWS}) i;
     ALTER TABLE pooled ADD PRIMARY KEY (id); ANALYZE pooled`,
  );
  const file = join(folder, 'pooled.csv');
  execFileSync('psql', [
    ...['-q', '-d', cluster.address(), '-c'],
    `\\copy (SELECT * FROM pooled ORDER BY id) TO '${file}' WITH (FORMAT csv, HEADER true)`,
  ]);
  const there = timed('--database', cluster.address(), '--table', 'pooled');
  const here = timed(file);
  const { database } = there.document.source;
  console.log(
    `${ROWS} rows × ${columns.length + 1} columns (${(statSync(file).size / 1e6).toFixed(0)} MB as a file)`,
  );
  console.log(
    `in the database  ${there.seconds.toFixed(1)} s, ${there.processor.toFixed(1)} s of processor time here, ${database?.statements} statements, ${((database?.bytes ?? 0) / 1e6).toFixed(1)} MB came back`,
  );
  console.log(
    `as a file        ${here.seconds.toFixed(1)} s, ${here.processor.toFixed(1)} s of processor time`,
  );
  const differing = here.document.variables.filter(({ name, kind, role, counts, statistics }, i) => {
    const told = there.document.variables[i];
    const figures = Object.entries(statistics).some(([figure, value]) => {
      const other = told.statistics[figure as 'mean'];
      return typeof value === 'number' && typeof other === 'number'
        ? Math.abs(value - other) > 1e-9 * Math.max(1, Math.abs(value))
        : figure !== 'mode' && value !== other;
    });
    return (
      figures ||
      JSON.stringify([name, kind, role, counts]) !==
        JSON.stringify([told.name, told.kind, told.role, told.counts])
    );
  });
  console.log(
    `differing in kind, role, counts or figures: ${differing.length ? differing.map(({ name }) => name).join(', ') : 'none'}`,
  );
} finally {
  cluster.drop();
  rmSync(folder, { recursive: true, force: true });
}
