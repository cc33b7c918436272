import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { describe, expect, it } from 'vitest';

const src = import.meta.dirname;
/** The core's folders in the order in which data flow; each may import from those before it. */
const CORE = [
  'extract',
  'read',
  'codebook',
  'tally',
  'rows',
  'infer',
  'intake',
  'flags',
  'sets',
  'sieve',
  'recode',
  'cross',
  'log',
  'inspect',
  'handoff',
];
/** Outer folders and what each may import, besides itself. */
const OUTER: Record<string, string[]> = {
  demo: [],
  storage: ['core'],
  threads: ['core'],
  engine: ['core', 'storage', 'threads'],
  store: ['core', 'storage', 'engine'],
  ui: ['core', 'storage', 'engine', 'store'],
  app: ['ui', 'demo', 'database', 'core'],
  database: ['core'],
  cli: ['core', 'demo', 'database', 'threads'],
};

function sources(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory()
      ? sources(path)
      : /\.tsx?$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name)
        ? [path]
        : [];
  });
}

const IMPORT = /(?:(?:import|export)\s+(?:type\s)?[^'"();]*?from\s*|import\s*\(?\s*)'(?<target>[^']+)'/g;
const imports = sources(src).flatMap((path) =>
  [...readFileSync(path, 'utf8').matchAll(IMPORT)].map(({ groups: { target = '' } = {} }) => ({
    from: relative(src, path),
    to: target.startsWith('.') ? relative(src, resolve(dirname(path), target)) : target,
  })),
);

describe('dependencies', () => {
  it('within the core point only to folders that data have passed already', () => {
    const wrong = imports.filter(
      ({ from, to }) =>
        from.startsWith('core/') &&
        to.startsWith('core/') &&
        CORE.indexOf(to.split('/')[1]) > CORE.indexOf(from.split('/')[1]),
    );
    expect(wrong).toEqual([]);
    expect(readdirSync(join(src, 'core')).sort()).toEqual([...CORE].sort());
  });

  it('never point from the core outwards, nor to interface, browser or Node', () => {
    const allowed = [
      'papaparse',
      '@zip.js/zip.js',
      'zod',
      'saxes',
      'fastest-levenshtein',
      'chardet',
      'fflate',
      'exceljs',
      'apache-arrow',
      'hyparquet',
      'hyparquet-writer',
      'hyparquet-compressors/src/brotli.js',
      'hyparquet-compressors/src/gzip.js',
      'hyparquet-compressors/src/lz4.js',
      'fzstd',
      '@streamparser/json',
    ];
    expect(
      imports.filter(
        ({ from, to }) => from.startsWith('core/') && !to.startsWith('core/') && !allowed.includes(to),
      ),
    ).toEqual([]);
  });

  it('between files never go round in a circle', () => {
    const known = new Map<string, string[]>();
    const fileOf = (path: string): string | undefined =>
      [path, `${path}.ts`, `${path}.tsx`, join(path, 'index.ts')].find(
        (name) => existsSync(join(src, name)) && statSync(join(src, name)).isFile(),
      );
    for (const { from, to } of imports) {
      const target = fileOf(to);
      if (target) known.set(from, [...(known.get(from) ?? []), target]);
    }
    const circles: string[][] = [];
    const done = new Set<string>();
    const walk = (file: string, path: readonly string[]): void => {
      if (path.includes(file)) circles.push([...path.slice(path.indexOf(file)), file]);
      else if (!done.has(file)) {
        for (const next of known.get(file) ?? []) walk(next, [...path, file]);
        done.add(file);
      }
    };
    for (const file of known.keys()) walk(file, []);
    expect(circles).toEqual([]);
  });

  it('point from the outside in', () => {
    const wrong = imports.filter(({ from, to }) => {
      const [folder, target] = [from.split('/')[0], to.split('/')[0]];
      return (
        folder in OUTER &&
        (target in OUTER || target === 'core') &&
        target !== folder &&
        !OUTER[folder].includes(target)
      );
    });
    expect(wrong).toEqual([]);
  });
});
