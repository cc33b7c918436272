import type { Column } from '../../extract/column';
import type { Extract } from '../../extract/extract';
import { BETWEEN_PULSES, pulse } from '../../extract/pulse';
import { isBlank } from '../../read/looks';
import { placeOf } from './repeated-header';
import { cellsRule } from '../cells-rule';
import { round2, type Flag } from '../rule';

const LEAST_ROWS = 20;

/** Rows that hold the same in every column: the same observation twice. */
export const duplicateRow = cellsRule({
  rule: 'duplicate-row',
  needs: 'rows',
  answers: 'rows',
  of: ({ subjects }) => subjects,
  reads: ({ kind, role, written, levels }) => ({
    // Whether it may be a running number or an identifier of the row alone.
    mayRun: kind === 'identifier' && (role === 'admin' || written.storage === 'integer'),
    isAdmin: role === 'admin',
    // Where as many values stand in a column as there are rows, no two of them are the same.
    isUnique: levels.blank === 0 && levels.levels.length === levels.rows,
    rows: levels.rows,
  }),
  find,
});

const LEAST_COLUMNS = 5;
/** Where more rows are alike, few columns make them so. */
const MOST_ALIKE = 0.05;

function find({
  extract,
  read,
}: {
  extract: Extract;
  read: readonly { mayRun: boolean; isAdmin: boolean; isUnique: boolean; rows: number }[];
}): Flag[] {
  const { variables, rows } = extract;
  if (variables.length < LEAST_COLUMNS || rows < LEAST_ROWS) return [];
  // A running number or an identifier of the row alone does not make a row another.
  const running = new Set(
    read.flatMap(({ mayRun, isAdmin }, i) =>
      mayRun && (isAdmin || isRunning(variables[i].column)) ? [i] : [],
    ),
  );
  const columns = variables.flatMap(({ column }, i) => (running.has(i) ? [] : [column]));
  if (columns.length < LEAST_COLUMNS) return [];
  if (read.some((one, i) => !running.has(i) && one.isUnique && one.rows === rows)) return [];
  const groups = groupsOf(columns, rowHashes(columns, rows));
  const touched = groups.reduce((sum, { length }) => sum + length, 0);
  const filled = groups.filter(
    ([row]) => columns.filter((column) => !isBlank(column.text(row))).length >= LEAST_COLUMNS,
  );
  if (filled.length === 0 || touched > rows * MOST_ALIKE) return [];
  const natural = isNatural(columns, rows, groups);
  return [
    {
      rule: 'duplicate-row',
      variables: [],
      codes: [],
      rows: touched,
      severity: natural ? 'note' : 'high',
      certainty: round2(natural ? 0.6 : columns.length >= 12 ? 0.95 : 0.75),
      at: groups.flatMap((same) => same.slice(1)),
      says: `${filled
        .slice(0, 2)
        .map((same) =>
          same
            .slice(0, 3)
            .map((row) => placeOf(extract, row))
            .join(' and '),
        )
        .join(
          '; ',
        )}${groups.length > Math.min(2, filled.length) ? ` and ${groups.length - Math.min(2, filled.length)} more` : ''} hold the same in ${running.size ? 'every column but a running number' : 'every column'}${natural ? '; so many others differ in one column only that chance alone makes some equal' : ''}`,
    },
  ];
}

/** Where chance makes a third of the equal pairs and more, it may well have made them all: answers depend on each other. */
const BY_CHANCE = 3;
/** Less than that many pairs are none. */
const LEAST_BY_CHANCE = 0.3;
/** Columns that are left out in turn: fewer where many rows have to be sorted each time. */
const TRIED = 16;
const TRIED_OF_MANY = 6;
const MANY_ROWS = 50_000;

/**
 * Whether equal rows are what coarse answers make of many people. Of two rows that agree in all columns but one, that one
 * agrees too as often as any two of its cells do: so pairs that differ in a single column tell how many equal ones chance
 * makes. A row that was entered twice has no such company.
 */
function isNatural(
  columns: readonly Column[],
  rows: number,
  groups: readonly (readonly number[])[],
): boolean {
  const pairs = groups.reduce((sum, { length }) => sum + (length * (length - 1)) / 2, 0);
  const keys = columns.map((column) => column.keys);
  const hashAt = (i: number, row: number): number => Math.imul(mixed(keys[i](row)), 2 * i + 1);
  const all = new Int32Array(rows);
  columns.forEach((_, i) => {
    pulse();
    for (let row = 0; row < rows; row++) all[row] = (all[row] + hashAt(i, row)) | 0;
  });
  const step = Math.max(1, Math.floor(columns.length / (rows > MANY_ROWS ? TRIED_OF_MANY : TRIED)));
  let chance = 0;
  for (let i = 0; i < columns.length; i += step) {
    pulse();
    const meets =
      pairsAlike(Int32Array.from({ length: rows }, (_, row) => hashAt(i, row))) / ((rows * (rows - 1)) / 2);
    const near = pairsAlike(Int32Array.from(all, (sum, row) => (sum - hashAt(i, row)) | 0)) - pairs;
    if (meets < 1) chance = Math.max(chance, (near * meets) / (1 - meets));
  }
  return chance >= LEAST_BY_CHANCE && chance * BY_CHANCE >= pairs;
}

/** Pairs of places that hold the same number. @param numbers is sorted by this */
function pairsAlike(numbers: Int32Array): number {
  numbers.sort();
  let [pairs, run] = [0, 1];
  for (let i = 1; i <= numbers.length; i++) {
    if (i < numbers.length && numbers[i] === numbers[i - 1]) run++;
    else {
      pairs += (run * (run - 1)) / 2;
      run = 1;
    }
  }
  return pairs;
}

const mixed = (hash: number): number => {
  const once = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  return once ^ (once >>> 13);
};

function isRunning(column: Column): boolean {
  const numbers = Array.from({ length: Math.min(50, column.rows) }, (_, row) => Number(column.text(row)));
  return numbers.every((n, i) => i === 0 || n === numbers[i - 1] + 1);
}

/** A 32-bit hash of each row, from those of its cells (FNV-1a). */
function rowHashes(columns: readonly Column[], rows: number): Uint32Array {
  const hashes = new Uint32Array(rows).fill(0x811c9dc5);
  for (const column of columns) {
    const { keys } = column;
    for (let row = 0; row < rows; row++) {
      if ((row & (BETWEEN_PULSES - 1)) === 0) pulse();
      hashes[row] = Math.imul(hashes[row] ^ mixed(keys(row)), 0x01000193) ^ (hashes[row] >>> 15);
    }
  }
  return hashes;
}

/** Bits that each row has to meet another by, as a power of two; and the most and least there are, too. */
const BITS_EACH = 3;
const MOST_BITS = 30;
const LEAST_BITS = 10;

/** Rows whose hash may be that of another: all that are, and a few that are not. Sorting the hashes of millions takes longer. */
function meeting(hashes: Uint32Array): Uint32Array {
  const bits = Math.min(MOST_BITS, Math.max(LEAST_BITS, 32 - Math.clz32(hashes.length) + BITS_EACH));
  const mask = 2 ** bits - 1;
  const [once, twice] = [new Uint32Array(2 ** (bits - 5)), new Uint32Array(2 ** (bits - 5))];
  for (let row = 0; row < hashes.length; row++) {
    if ((row & (BETWEEN_PULSES - 1)) === 0) pulse();
    const place = (hashes[row] & mask) >>> 5;
    const bit = 1 << (hashes[row] & 31);
    if (once[place] & bit) twice[place] |= bit;
    else once[place] |= bit;
  }
  const found = new Uint32Array(hashes.length);
  let n = 0;
  for (let row = 0; row < hashes.length; row++)
    if (twice[(hashes[row] & mask) >>> 5] & (1 << (hashes[row] & 31))) found[n++] = row;
  return found.slice(0, n);
}

/**
 * Rows that hold the same in all columns, each group in the order of the file, the groups by their first rows. Rows of one
 * hash are held against each other cell by cell, by codes where a column has them.
 */
function groupsOf(columns: readonly Column[], hashes: Uint32Array): number[][] {
  const rows = meeting(hashes);
  const sorted = Uint32Array.from(rows, (row) => hashes[row]).sort();
  const repeated = new Set<number>();
  for (let i = 1; i < sorted.length; i++) if (sorted[i] === sorted[i - 1]) repeated.add(sorted[i]);
  if (repeated.size === 0) return [];
  const byHash = new Map<number, number[][]>();
  const groups: number[][] = [];
  for (let i = 0; i < rows.length; i++) {
    if ((i & (BETWEEN_PULSES - 1)) === 0) pulse();
    const row = rows[i];
    if (!repeated.has(hashes[row])) continue;
    const known = byHash.get(hashes[row]);
    const same = known?.find(([first]) => columns.every((column) => column.isSame(first, row)));
    if (same) same.push(row);
    else {
      const group = [row];
      groups.push(group);
      if (known) known.push(group);
      else byHash.set(hashes[row], [group]);
    }
  }
  return groups.filter(({ length }) => length > 1);
}
