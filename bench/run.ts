/**
 * `npm run bench`: seconds and peak memory of an inspection, beside what splitting the same text alone takes, in one
 * run; with `--browser` also from dropping a file to the ledger, and frames while scrolling. Ratios are what counts:
 * seconds depend on the machine and on who else uses it.
 */
import { spawn } from 'node:child_process';
import { readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import Papa from 'papaparse';
import { inBrowser } from './browser';
import { madeFile } from './make';

const root = join(import.meta.dirname, '..');
const ROUNDS = 3;

/** Peak resident memory of a process in bytes, as Linux counts it; 0 where it does not. */
function peak(pid: number): number {
  try {
    return Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) * 1024;
  } catch {
    return 0;
  }
}

function inspect(path: string): Promise<{ seconds: number; bytes: number }> {
  return new Promise((resolve, reject) => {
    const start = performance.now();
    let bytes = 0;
    const child = spawn(
      process.execPath,
      ['--import', 'tsx', 'src/cli/main.ts', 'inspect', path, '--out', '/dev/null'],
      { cwd: root, stdio: 'inherit' },
    );
    const watch = setInterval(() => {
      bytes = Math.max(bytes, peak(child.pid ?? 0));
    }, 20);
    child.on('exit', (code) => {
      clearInterval(watch);
      if (code === 0) resolve({ seconds: (performance.now() - start) / 1000, bytes });
      else reject(new Error(`inspect ended with ${code}`));
    });
  });
}

/** Papaparse alone, cutting the text into rows piece by piece and keeping none. */
function splitting(path: string): number {
  const text = readFileSync(path, 'utf8');
  const start = performance.now();
  let rows = 0;
  Papa.parse<string[]>(text, {
    chunkSize: 1 << 19,
    chunk: ({ data }: Papa.ParseResult<string[]>) => {
      rows += data.length;
    },
  } as Papa.ParseConfig<string[]>);
  if (rows === 0) throw new Error('nothing was split');
  return (performance.now() - start) / 1000;
}

const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

for (const [rows, columns] of [
  [300_000, 40],
  [600, 2500],
]) {
  const path = madeFile(rows, columns);
  const { size } = statSync(path);
  const found: { seconds: number; bytes: number }[] = [];
  const alone: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    alone.push(splitting(path));
    found.push(await inspect(path));
  }
  const seconds = median(found.map((one) => one.seconds));
  const memory = median(found.map((one) => one.bytes));
  console.log(
    `${rows} rows × ${columns} columns, ${(size / 1e6).toFixed(1)} MB: inspect ${seconds.toFixed(2)} s, peak ${(memory / 1e6).toFixed(0)} MB (${(memory / size).toFixed(1)} times the file); papaparse alone ${median(alone).toFixed(2)} s; ratio ${(seconds / median(alone)).toFixed(2)}`,
  );
}
if (process.argv.includes('--browser')) await inBrowser(process.argv.includes('--large'));
