/** What `npm start` and `npm test` share: install what is missing, build what is stale. Node's own modules only. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export const root = join(import.meta.dirname, '..');
const cache = join(root, '.cache');

/** Runs a command in the project, its output shown. @returns its exit status */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (error) console.error(`${command}: ${error.message}`);
  return status ?? 1;
}

/** A digest of files and folders, by content. */
export function digest(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    const full = join(root, path);
    if (!existsSync(full)) return;
    const entries = readdirSyncOrNull(full);
    if (entries) for (const entry of entries.sort()) add(join(path, entry));
    else hash.update(path).update(readFileSync(full));
  };
  paths.forEach(add);
  return hash.digest('hex');
}

function readdirSyncOrNull(path) {
  try {
    return readdirSync(path);
  } catch {
    return null;
  }
}

/** Does `work` unless it was done for the same inputs before. */
function once(name, inputs, output, work) {
  const mark = join(cache, `${name}.sha256`);
  const now = digest(inputs);
  if (existsSync(join(root, output)) && existsSync(mark) && readFileSync(mark, 'utf8') === now) return;
  work();
  mkdirSync(cache, { recursive: true });
  writeFileSync(mark, now);
}

function must(what, status) {
  if (status !== 0) {
    console.error(`${what} failed.`);
    process.exit(1);
  }
}

/** What is installed, by place and version; `null` where npm has not written it down. */
function packagesIn(path) {
  try {
    return JSON.parse(readFileSync(join(root, path), 'utf8')).packages ?? null;
  } catch {
    return null;
  }
}

/** Whether all packages of the lock file are there already, as somebody installed them by hand. */
function isInstalled() {
  const [wanted, there] = ['package-lock.json', 'node_modules/.package-lock.json'].map(packagesIn);
  if (!wanted || !there) return false;
  return Object.entries(wanted).every(
    ([place, { version, optional }]) =>
      place === '' || there[place]?.version === version || (optional && !there[place]),
  );
}

const LOCK = join(cache, 'installing');
/** Longer than this no installing takes: who held the place is gone. */
const PATIENCE = 600_000;
const wait = (milliseconds) => Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, milliseconds);

/** Whether another start of this program is installing: what is there is not whole yet. */
export const isInstalling = () => existsSync(LOCK);

/** Whether the place is held by a process that is gone: it was ended in the middle. */
function isLeft() {
  try {
    process.kill(Number(readFileSync(join(LOCK, 'process'), 'utf8')), 0);
    return false;
  } catch (cause) {
    return cause.code === 'ESRCH';
  }
}

/** Does work while no other start of this program does the same. */
function alone(work) {
  mkdirSync(cache, { recursive: true });
  for (const since = Date.now(); ; wait(200)) {
    try {
      mkdirSync(LOCK);
      writeFileSync(join(LOCK, 'process'), String(process.pid));
      break;
    } catch (cause) {
      if (cause.code !== 'EEXIST') throw cause;
      if (Date.now() - since > PATIENCE || isLeft()) rmSync(LOCK, { recursive: true, force: true });
    }
  }
  const free = () => rmSync(LOCK, { recursive: true, force: true });
  process.once('exit', free);
  try {
    work();
  } finally {
    free();
    process.removeListener('exit', free);
  }
}

export function install() {
  alone(() =>
    once('install', ['package-lock.json'], 'node_modules', () => {
      if (isInstalled()) return;
      // Standard output is for what was asked for.
      console.error('Installing what is missing…');
      must(
        'npm ci',
        run('npm', ['ci', '--no-audit', '--no-fund', '--include=dev'], { stdio: ['inherit', 2, 'inherit'] }),
      );
    }),
  );
}

export function build() {
  once('build', ['package-lock.json', 'next.config.ts', 'tsconfig.json', 'src'], '.next/BUILD_ID', () => {
    console.log('Building…');
    must(
      'The build',
      run('npx', ['next', 'build'], {
        env: { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' },
      }),
    );
  });
}
