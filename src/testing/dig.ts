import { execFile, type ExecFileOptions } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';

const run = promisify(execFile);
const ROOT = join(import.meta.dirname, '../..');

interface Ran {
  code: number;
  out: string;
  err: string;
}

async function ran(command: string, args: readonly string[], options: ExecFileOptions = {}): Promise<Ran> {
  try {
    const { stdout, stderr } = await run(command, args, { cwd: ROOT, maxBuffer: 1 << 28, ...options });
    return { code: 0, out: String(stdout), err: String(stderr) };
  } catch (cause) {
    const { code, stdout, stderr } = cause as { code: number; stdout: string; stderr: string };
    return { code, out: stdout, err: stderr };
  }
}

/** The command line as a person calls it, to its end. */
export const dig = (...args: string[]): Promise<Ran> => ran(process.execPath, ['scripts/dig.mjs', ...args]);

/** The same where no file may grow beyond some blocks of 1024 bytes: a disk that is full. */
export const digOnFullDisk = (blocks: number, ...args: string[]): Promise<Ran> =>
  ran('bash', [
    '-c',
    `ulimit -f ${blocks}; trap '' XFSZ; exec "$0" "$@"`,
    process.execPath,
    'scripts/dig.mjs',
    ...args,
  ]);

/** What was said, line by line, without the words of the package manager. */
export const linesOf = (err: string): string[] =>
  err.split('\n').filter((line) => line && !line.startsWith('npm '));

/** A folder of its own. @returns paths in it */
export function scratch(name: string): (file: string) => string {
  const folder = mkdtempSync(join(tmpdir(), `dig-${name}-`));
  return (file) => join(folder, file);
}
