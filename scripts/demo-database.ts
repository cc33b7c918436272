/**
 * `npm run demo:database`: the demo in a PostgreSQL server of its own, which is thrown away at the end, and the program that asks
 * it. With `--serve no` only the server runs, to be asked by the command line.
 */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { demoFiles } from '../src/demo/files';
import { asText, Cluster } from '../src/testing/postgres';

const serves = !process.argv.includes('no');
const cluster = await Cluster.start();
const address = cluster.address();
for (const { name, text } of demoFiles()) {
  const table = /^(upkeep_\d{4})\.csv$/.exec(name)?.[1];
  if (!table) continue;
  const rows = text.replaceAll('\r\n', '\n');
  await cluster.sql(asText(table, rows.slice(0, rows.indexOf('\n')).split(',')));
  cluster.load(table, rows);
}
await cluster.sql('ANALYZE');
console.log(`The demo is in a database, one table a wave. On the command line:
  DIG_DATABASE='${address}' npm run --silent dig -- inspect --table upkeep_2022`);
const serving = serves
  ? spawn(process.execPath, [join(import.meta.dirname, 'start.mjs')], {
      stdio: 'inherit',
      env: { ...process.env, DIG_DATABASE: address },
    })
  : null;
const end = (): void => {
  serving?.kill();
  cluster.drop();
  process.exit(0);
};
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, end);
serving?.on('exit', end);
if (!serving) setInterval(() => undefined, 1 << 30);
