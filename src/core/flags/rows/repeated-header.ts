import { findRows } from '../../extract/rows';
import { lineOfRow, placeReceived, type Extract, type Variable } from '../../extract/extract';
import { standing } from '../../extract/files';
import { placeInAnyCase, textAt } from '../../extract/text-list';
import { type ExtractRule, type Flag, type Whole } from '../rule';

/**
 * Rows that hold the names of the columns once more, as files do that were put together from parts.
 *
 * Example: a row whose `age` cell holds "age", whose `sex` cell holds "sex", and so on.
 */
export const repeatedHeader: ExtractRule = {
  rule: 'repeated-header',
  // The rows themselves are told where they are held; that they are there is told by what all rows hold.
  needs: 'tally',
  answers: 'rows',
  // What it finds is remembered with the variables.
  ofCells: true,
  look,
};

/** A row is a header if so many of its cells are their own column's name. */
const LEAST_SHARE = 0.5;
const LEAST_CELLS = 2;

const known = new WeakMap<object, number[]>();

/** Zero-based rows that repeat the names of their columns; worked out once for the same variables. */
export function repeatedHeaders({ variables }: Pick<Extract, 'variables'>): number[] {
  let found = known.get(variables);
  if (!found) known.set(variables, (found = findHeaders(variables)));
  return found;
}

function findHeaders(variables: Extract['variables']): number[] {
  const hits = new Map<number, number>();
  let able = 0;
  for (const { name, column } of variables) {
    if (column.distinct === null) continue;
    able++;
    const at = placeInAnyCase(column.distinct, name);
    if (at < 0) continue;
    const own = textAt(column.distinct, at);
    for (const row of findRows(column, [[own]], Infinity)[0]) hits.set(row, (hits.get(row) ?? 0) + 1);
  }
  return [...hits]
    .filter(([, cells]) => cells >= Math.max(LEAST_CELLS, able * LEAST_SHARE))
    .map(([row]) => row)
    .sort((a, b) => a - b);
}

const passed = new WeakMap<object, number>();

/** Rows that repeat the names of the columns where not all rows are held: most columns hold their own name in as many. */
export function headersPassed({ variables }: Pick<Extract, 'variables'>): number {
  const before = passed.get(variables);
  if (before !== undefined) return before;
  const all = variables.filter(({ pass }) => pass && !pass.others);
  const held = all.flatMap((variable) => ownName(variable)?.rows ?? []).sort((a, b) => a - b);
  const rows = held.length >= Math.max(LEAST_CELLS, all.length * LEAST_SHARE) ? held[held.length >> 1] : 0;
  passed.set(variables, rows);
  return rows;
}

/** The name of a column as its cells hold it, and in how many rows. */
function ownName({ name, pass }: Variable): { text: string; rows: number } | null {
  const at = pass ? placeInAnyCase(pass.texts, name) : -1;
  return pass && at >= 0 ? { text: textAt(pass.texts, at), rows: pass.counts[at] } : null;
}

/** Of a variable of which all rows were counted and not all are held: its cells in rows that repeat the names of the columns. */
export function headerCells(variable: Variable, extract: Pick<Extract, 'variables'>): Map<string, number> {
  const rows = headersPassed(extract);
  const own = rows > 0 ? ownName(variable) : null;
  return new Map(own ? [[own.text, Math.min(rows, own.rows)]] : []);
}

/** "row 1,204 of a.csv (line 1,205)", as it was received. */
export function placeOf(extract: Pick<Extract, 'files' | 'taken' | 'pass'>, row: number): string {
  if (extract.taken) return placeOf(extract.taken.from, placeReceived(extract, row));
  const { file, inFile, place } = standing(extract)(row);
  if (!file) return `row ${place + 1}`;
  const line = lineOfRow(file, inFile);
  return `row ${inFile + 1} of ${file.name}${line === null ? '' : ` (line ${line})`}`;
}

function look({ extract }: Whole): Flag[] {
  if (extract.pass && !extract.taken) return lookPassed(extract);
  const rows = repeatedHeaders(extract);
  if (rows.length === 0) return [];
  const [first] = extract.variables.filter(({ name, column }) => column.text(rows[0]) === name);
  return [
    {
      rule: 'repeated-header',
      variables: first ? [first.name] : [],
      codes: first ? [first.name] : [],
      rows: rows.length,
      severity: 'high',
      certainty: 0.98,
      at: rows,
      says: `${rows
        .slice(0, 3)
        .map((row) => placeOf(extract, row))
        .join(
          ', ',
        )}${rows.length > 3 ? ` and ${rows.length - 3} more` : ''} ${rows.length === 1 ? 'repeats' : 'repeat'} the names of the columns`,
    },
  ];
}

/** The same where only a sample of the rows is held: how many, and not which. */
function lookPassed(extract: Extract): Flag[] {
  const rows = headersPassed(extract);
  if (rows === 0) return [];
  return [
    {
      rule: 'repeated-header',
      variables: [],
      codes: [],
      rows,
      severity: 'high',
      certainty: 0.95,
      says: `${rows} ${rows === 1 ? 'row repeats' : 'rows repeat'} the names of the columns`,
    },
  ];
}
