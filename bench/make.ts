/** Made-up extracts of a given size, the same bytes for the same arguments. */
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, writeSync } from 'node:fs';
import { join } from 'node:path';

const folder = join(import.meta.dirname, 'data');

/** Small, quick, seeded generator of numbers from 0 up to 1 (a linear congruence, Numerical Recipes' constants). */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
}

const PLACES = Array.from(
  { length: 20 },
  (_, i) => `${['Up', 'Low', 'East', 'West', 'Old'][i % 5]} ${['Ost', 'Fen', 'Mar', 'Hay'][(i >> 2) & 3]}`,
);

/** A quarter each of small integer codes, two-decimal numbers, 20 text labels, and integers up to 90,000. */
function cell(column: number, next: () => number): string {
  switch (column % 4) {
    case 0:
      return String(1 + Math.floor(next() * 7));
    case 1:
      return (next() * 100).toFixed(2);
    case 2:
      return PLACES[Math.floor(next() * 20)];
    default:
      return String(Math.floor(next() * 90000));
  }
}

/** Cells of which no two in a column are alike: numbers with decimals, whole numbers, identifiers, words with a number. */
function distinctCell(column: number, row: number, next: () => number): string {
  switch (column % 4) {
    case 0:
      return (row + next()).toFixed(6);
    case 1:
      return String(row * 7 + Math.floor(next() * 7));
    case 2:
      return `H${String(row).padStart(9, '0')}${Math.floor(next() * 10)}`;
    default:
      return `${PLACES[Math.floor(next() * 20)]} ${row}`;
  }
}

/** Path of a delimited file with that many rows and columns, made if it is not there yet. @param distinct whether no two cells of a column are alike */
export function madeFile(rows: number, columns: number, distinct = false): string {
  mkdirSync(folder, { recursive: true });
  const path = join(folder, `made_${rows}x${columns}${distinct ? '_distinct' : ''}.csv`);
  if (existsSync(path)) return path;
  const next = seeded(rows + columns);
  const file = openSync(path, 'w');
  let text = `${Array.from({ length: columns }, (_, c) => `v${c + 1}`).join(',')}\n`;
  for (let row = 0; row < rows; row++) {
    const cells: string[] = [];
    for (let column = 0; column < columns; column++)
      cells.push(distinct ? distinctCell(column, row, next) : cell(column, next));
    text += `${cells.join(',')}\n`;
    if (text.length > 1 << 20) {
      writeSync(file, text);
      text = '';
    }
  }
  writeSync(file, text);
  closeSync(file);
  return path;
}

/** @throws Error where a made file repeats its rows: figures of it would hide what real numbers cost */
export function mustBeSound(path: string, rows: number): void {
  const lines = readFileSync(path, 'latin1').split('\n').slice(1, -1);
  const different = new Set(lines).size;
  if (lines.length !== rows || different !== rows)
    throw new Error(`${path}: ${different} different rows of ${lines.length}, not ${rows}`);
}
