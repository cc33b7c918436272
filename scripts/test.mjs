/** `npm test`: installs what is missing, then runs every check and tells the totals. */
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build, install, root, run } from './setup.mjs';

const results = join(root, '.cache', 'results');
const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
const DRIVER = [
  '/usr/bin/chromedriver',
  '/usr/lib/chromium/chromedriver',
  '/usr/lib/chromium-browser/chromedriver',
];

/** Debian's packages of something, installed where it is not there. */
function installed(what, there, packages) {
  if (there()) return true;
  if (process.getuid?.() !== 0 || run('sh', ['-c', 'command -v apt-get >/dev/null']) !== 0) {
    console.error(
      `The tests need ${what}, and may not install it here.\nInstall it as root: apt-get install ${packages.join(' ')}`,
    );
    return false;
  }
  console.log(`Installing ${what}…`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...packages], { env });
  return there();
}

const installChromium = () =>
  installed('Chromium and its driver', () => CHROMIUM.some(existsSync) && DRIVER.some(existsSync), [
    'chromium',
    'chromium-driver',
  ]);
/** The server that databases are tried with: each test starts one of its own, and throws it away. */
const installServer = () => {
  return installed(
    'PostgreSQL',
    () =>
      existsSync('/usr/lib/postgresql') &&
      readdirSync('/usr/lib/postgresql').some((version) =>
        existsSync(join('/usr/lib/postgresql', version, 'bin', 'initdb')),
      ),
    ['postgresql', 'postgresql-client'],
  );
};

const totals = { passed: 0, failed: 0 };
function tell(name, passed, failed) {
  totals.passed += passed;
  totals.failed += failed;
  console.log(`${failed ? 'FAILED' : 'passed'}: ${name} (${passed} passed, ${failed} failed)`);
}

/** A check that is one thing: it holds or it does not. */
function check(name, command, args) {
  const ok = run(command, args) === 0;
  tell(name, ok ? 1 : 0, ok ? 0 : 1);
}

/** A run of Vitest, counted test by test. A run that dies before it can count is one failure. */
function tests(name, args) {
  const output = join(results, `${name}.json`);
  const status = run('npx', [
    'vitest',
    'run',
    ...args,
    '--reporter=dot',
    '--reporter=json',
    `--outputFile.json=${output}`,
  ]);
  if (!existsSync(output)) return tell(name, 0, 1);
  const { numPassedTests: passed, numFailedTests: failed } = JSON.parse(readFileSync(output, 'utf8'));
  tell(name, passed, status !== 0 && failed === 0 ? 1 : failed);
}

install();
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
// Next's own declarations, which are not kept in the repository.
run('npx', ['next', 'typegen'], { stdio: 'ignore' });
check('types', 'npx', ['tsc', '--noEmit']);
check('lint', 'npx', ['eslint', '.', '--max-warnings=0']);
check('format', 'npx', ['prettier', '--check', '.', '--log-level', 'warn']);
installServer();
tests('unit', []);
if (installChromium()) {
  build();
  tests('interface', ['--config', 'e2e/vitest.config.ts']);
} else tell('interface', 0, 1);
writeFileSync(join(results, 'totals.json'), JSON.stringify(totals));
console.log(`In all: ${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed ? 1 : 0);
