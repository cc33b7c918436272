/** Small extracts made for tests of rules. */
import { chance } from '../demo/random';
import { columnOf } from '../core/extract/column';
import { bareEntry, type CodebookEntry, type Extract } from '../core/extract/extract';
import { Inspector } from '../core/inspect/inspect';
import type { Flag } from '../core/flags/rule';

export type Cells = (string | number)[];
export const extractOf = (
  columns: Record<string, Cells>,
  entries: Record<string, Partial<CodebookEntry>> = {},
): Extract => ({
  name: 'made',
  files: [],
  codebooks: [],
  notices: [],
  linkNotices: [],
  rows: Object.values(columns)[0].length,
  variables: Object.entries(columns).map(([name, cells], i) => ({
    name,
    position: i + 1,
    column: columnOf(cells.map(String)),
    entry: entries[name] ? { ...bareEntry(name), ...entries[name] } : null,
  })),
});
export const allFlags = (
  columns: Record<string, Cells>,
  entries?: Record<string, Partial<CodebookEntry>>,
): Flag[] => new Inspector(extractOf(columns, entries)).flags;
export const flagsOf = (cells: Cells, entry?: Partial<CodebookEntry>, name = 'x'): Flag[] =>
  allFlags({ [name]: cells }, entry ? { [name]: entry } : {});
export const repeat = (n: number, value: string | number): Cells => Array<string | number>(n).fill(value);
export const make = (
  n: number,
  cell: (c: ReturnType<typeof chance>, i: number) => string | number,
  seed = n * 7 + 1,
): Cells => {
  const c = chance(seed);
  return Array.from({ length: n }, (_, i) => cell(c, i));
};
export const labels = (list: Record<string, string>): CodebookEntry['categories'] =>
  Object.entries(list).map(([code, label]) => ({
    code,
    label,
    missing: false,
    reason: null,
    frequency: null,
  }));
