/**
 * `npm run bench`: processor time and peak memory of an inspection through the command line, beside what splitting the same
 * text alone takes, in one run; with `--large` also of files of some hundred megabytes, with `--browser` from dropping a file
 * to the ledger, and frames while scrolling. Ratios are what counts: seconds depend on the machine and on who else uses it.
 */
import { spawn } from 'node:child_process';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import Papa from 'papaparse';
import { inBrowser } from './browser';
import { madeFile, mustBeSound } from './make';

const root = join(import.meta.dirname, '..');
const ROUNDS = 3;

/** A process and those that it started, by what Linux tells of each. */
function family(pid: number): number[] {
  const children = new Map<number, number[]>();
  for (const name of readdirSync('/proc'))
    if (/^\d+$/.test(name))
      try {
        // The name of the command may hold blanks and brackets; what follows the last one does not.
        const [, parent] = readFileSync(`/proc/${name}/stat`, 'utf8').split(') ').at(-1)?.split(' ') ?? [];
        children.set(Number(parent), [...(children.get(Number(parent)) ?? []), Number(name)]);
      } catch {
        // It ended meanwhile.
      }
  const all = [pid];
  for (let i = 0; i < all.length; i++) all.push(...(children.get(all[i]) ?? []));
  return all;
}

/** Peak resident memory of a process in bytes; 0 where it is gone. */
function peak(pid: number): number {
  try {
    return Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) * 1024;
  } catch {
    return 0;
  }
}

interface Run {
  /** Seconds of processor time, of all processes together, and on the clock. */
  seconds: number;
  wall: number;
  /** Peak memory of the largest. */
  bytes: number;
}

/** The command line as a person calls it. */
function dig(...args: string[]): Promise<Run> {
  return new Promise((resolve, reject) => {
    let bytes = 0;
    let said = '';
    const start = performance.now();
    const child = spawn(
      'bash',
      ['-c', 'TIMEFORMAT="%U %S"; time npm run --silent dig -- "$@" 2>/dev/null', 'dig', ...args],
      { cwd: root, stdio: ['ignore', 'ignore', 'pipe'] },
    );
    child.stderr.on('data', (piece: Buffer) => (said += piece.toString()));
    const watch = setInterval(() => {
      for (const pid of family(child.pid ?? 0)) bytes = Math.max(bytes, peak(pid));
    }, 100);
    child.on('exit', (code) => {
      clearInterval(watch);
      const [user, system] = said.trim().split(/\s+/).slice(-2).map(Number);
      if (code === 0) resolve({ seconds: user + system, wall: (performance.now() - start) / 1000, bytes });
      else reject(new Error(`dig ${args.join(' ')} ended with ${code}: ${said}`));
    });
  });
}

/** Papaparse alone, cutting the text into rows piece by piece and keeping none: seconds of processor time. */
function splitting(path: string): number {
  const text = readFileSync(path, 'utf8');
  const start = process.cpuUsage();
  let rows = 0;
  Papa.parse<string[]>(text, {
    chunkSize: 1 << 19,
    chunk: ({ data }: Papa.ParseResult<string[]>) => {
      rows += data.length;
    },
  } as Papa.ParseConfig<string[]>);
  if (rows === 0) throw new Error('nothing was split');
  const { user, system } = process.cpuUsage(start);
  return (user + system) / 1e6;
}

const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];
const large = process.argv.includes('--large');

const { seconds: bare, bytes: bareBytes } = await dig('--help');
console.log(`a bare start: ${bare.toFixed(2)} s of processor time, ${(bareBytes / 1e6).toFixed(0)} MB`);
const files: [rows: number, columns: number, distinct: boolean][] = [
  [300_000, 40, false],
  [600, 2500, false],
  ...(large
    ? ([
        [1_000_000, 10, true],
        [3_000_000, 20, false],
      ] as [number, number, boolean][])
    : []),
];
for (const [rows, columns, distinct] of files) {
  const path = madeFile(rows, columns, distinct);
  const { size } = statSync(path);
  if (size < 200e6) mustBeSound(path, rows);
  const alone: number[] = [];
  const byThreads = new Map<number, Run[]>([
    [1, []],
    [2, []],
  ]);
  for (let round = 0; round < (size > 100e6 ? 1 : ROUNDS); round++) {
    alone.push(splitting(path));
    for (const [threads, found] of byThreads)
      found.push(
        await dig('inspect', path, '--hold', 'all', '--threads', `${threads}`, '--out', '/dev/null'),
      );
  }
  const papa = median(alone);
  console.log(
    `${rows} rows × ${columns} columns${distinct ? ', all distinct' : ''}, ${(size / 1e6).toFixed(1)} MB: papaparse alone ${papa.toFixed(2)} s`,
  );
  for (const [threads, found] of byThreads)
    tell(`all rows held, ${threads} thread${threads > 1 ? 's' : ''}`, found);
  if (size < 100e6) continue;
  for (const threads of byThreads.keys())
    tell(`read once, a sample held, ${threads} thread${threads > 1 ? 's' : ''}`, [
      await dig('inspect', path, '--hold', 'sample', '--threads', `${threads}`, '--out', '/dev/null'),
    ]);

  /** The middle of some runs; what the memory of a bare start is belongs to none of them. */
  function tell(what: string, found: readonly Run[]): void {
    const [seconds, wall, bytes] = (['seconds', 'wall', 'bytes'] as const).map((of) =>
      median(found.map((one) => one[of])),
    );
    console.log(
      `  ${what}: ${seconds.toFixed(2)} s of processor time, ${wall.toFixed(2)} s on the clock; ratios to papaparse ${(seconds / papa).toFixed(2)} and ${(wall / papa).toFixed(2)}; peak ${(bytes / 1e6).toFixed(0)} MB, ${((bytes - bareBytes) / size).toFixed(1)} times the file beyond a bare start`,
    );
  }
}
if (process.argv.includes('--browser')) await inBrowser(large);
