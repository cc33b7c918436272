#!/usr/bin/env node
/**
 * `dig`: the command line, from one bundle that is made at first use and kept by the content of what it is made of. What is
 * installed comes first where nothing is yet.
 */
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { digest, install, isInstalling, root } from './setup.mjs';

const bundles = join(root, '.cache', 'dig');
/** Packages that few commands need, which are loaded where they are. */
const APART = ['apache-arrow', 'exceljs', 'hyparquet-writer'];

async function bundle() {
  const folder = join(
    bundles,
    digest([
      'package-lock.json',
      'tsconfig.json',
      ...['cli', 'core', 'database', 'demo', 'threads'].map((one) => `src/${one}`),
    ]),
  );
  const main = join(folder, 'main.mjs');
  if (existsSync(main)) return main;
  const { build } = await import('esbuild');
  const beside = `${folder}.${process.pid}`;
  await build({
    absWorkingDir: root,
    entryPoints: ['src/cli/main.ts', 'src/cli/helper-thread.ts'],
    outdir: beside,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    external: APART,
    legalComments: 'none',
    logLevel: 'silent',
    // Some packages ask for Node's own modules as CommonJS does.
    banner: {
      js: "import { createRequire as requireHere } from 'node:module'; const require = requireHere(import.meta.url);",
    },
  });
  const before = readdirSync(bundles).filter((name) => !name.includes('.') && join(bundles, name) !== folder);
  try {
    renameSync(beside, folder);
  } catch {
    // Another run was first with the same.
    rmSync(beside, { recursive: true, force: true });
  }
  for (const name of before) rmSync(join(bundles, name), { recursive: true, force: true });
  return main;
}

if (!existsSync(join(root, 'node_modules')) || isInstalling()) install();
mkdirSync(bundles, { recursive: true });
await import(pathToFileURL(await bundle()).href);
