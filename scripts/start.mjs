/** `npm start`: installs, builds, serves on this machine, and says where to look. */
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { createServer } from 'node:net';
import { hostname, networkInterfaces } from 'node:os';
import { build, install, root } from './setup.mjs';

const host = process.env.HOST ?? '127.0.0.1';

const isFree = (port) =>
  new Promise((resolve) => {
    const probe = createServer()
      .once('error', () => resolve(false))
      .once('listening', () => probe.close(() => resolve(true)));
    probe.listen(port, host);
  });

async function freePort() {
  const wanted = Number(process.env.PORT ?? 3000);
  // A port that was asked for by name is taken or refused; the usual one gives way to the next.
  if (process.env.PORT) return wanted;
  for (let port = wanted; port < wanted + 50; port++) if (await isFree(port)) return port;
  return wanted;
}

/** Names under which the program answers besides localhost: the one that it listens on; on all of them, those of this machine. */
function names() {
  if (host !== '0.0.0.0' && host !== '::') return [host.toLowerCase()];
  const addresses = Object.values(networkInterfaces()).flatMap((found) => found ?? []);
  return [
    hostname().toLowerCase(),
    ...addresses.map(({ address, family }) => (family === 'IPv6' ? `[${address}]` : address)),
    ...(process.env.DIG_NAMES ?? '').split(',').filter(Boolean),
  ];
}

install();
build();
/** Known to whoever sees what is printed here, and to the page that is opened from it: only that may ask a database. */
const secret = process.env.DIG_START || randomBytes(24).toString('base64url');
const port = await freePort();
const usual = Number(process.env.PORT ?? 3000);
if (port !== usual)
  console.log(
    `Port ${usual} is taken, so this is another address: what the browser keeps under port ${usual} is not shown under it.`,
  );
const server = spawn(
  process.execPath,
  ['node_modules/next/dist/bin/next', 'start', '-H', host, '-p', String(port)],
  {
    cwd: root,
    stdio: ['inherit', 'pipe', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NEXT_TELEMETRY_DISABLED: '1',
      DIG_NAMES: names().join(','),
      DIG_START: secret,
    },
  },
);
server.stdout.on('data', (chunk) => {
  const text = String(chunk);
  if (/Ready/.test(text))
    console.log(
      `Dig First is at http://${host === '0.0.0.0' ? 'localhost' : host}:${port}/#start=${secret}\n(the demo is one click away; what stands behind the # lets the page ask a database; Ctrl-C stops it)`,
    );
  else if (/error|warn/i.test(text)) process.stderr.write(text);
});
server.on('exit', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
