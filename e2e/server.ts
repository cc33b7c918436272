import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';

declare module 'vitest' {
  export interface ProvidedContext {
    address: string;
    /** What stands behind the # of the address that the start prints. */
    secret: string;
  }
}

const root = join(import.meta.dirname, '..');

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 3999));
    });
  });

const SECRET = 'secret-of-the-interface-tests';
let server: ChildProcess | null = null;

/** Serves the program as `npm start` does, on a port of its own, for all interface tests. */
export default async function setup(project: TestProject): Promise<() => void> {
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  server = spawn('node', ['scripts/start.mjs'], {
    cwd: root,
    env: { ...process.env, PORT: String(port), HOST: '127.0.0.1', DIG_START: SECRET },
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  const patience = Date.now() + 300_000;
  while (
    !(await fetch(address).then(
      (answer) => answer.ok,
      () => false,
    ))
  ) {
    if (Date.now() > patience || server.exitCode !== null) throw new Error('the program does not answer');
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
  project.provide('address', address);
  project.provide('secret', SECRET);
  return () => void server?.kill('SIGTERM');
}
