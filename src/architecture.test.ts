import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { describe, expect, it } from 'vitest';

const src = import.meta.dirname;
/** The core's folders in the order in which data flow; each may import from those before it. */
const CORE = [
  'extract',
  'read',
  'codebook',
  'tally',
  'infer',
  'intake',
  'flags',
  'sets',
  'log',
  'inspect',
  'handoff',
];
/** Outer folders and what each may import, besides itself. */
const OUTER: Record<string, string[]> = {
  demo: [],
  store: ['core', 'engine'],
  engine: ['core', 'store'],
  ui: ['core', 'engine', 'store'],
  app: ['ui', 'demo'],
  cli: ['core', 'demo'],
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

const imports = sources(src).flatMap((path) =>
  [...readFileSync(path, 'utf8').matchAll(/(?:from|import)\s*\(?\s*'([^']+)'/g)].map(([, target]) => ({
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
      'zod',
      'saxes',
      'fflate',
      'exceljs',
      'hyparquet',
      'hyparquet-compressors',
      '@streamparser/json',
    ];
    expect(
      imports.filter(
        ({ from, to }) => from.startsWith('core/') && !to.startsWith('core/') && !allowed.includes(to),
      ),
    ).toEqual([]);
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
