import type { Column } from '../extract/column';
import { NumberTexts } from '../extract/text-list';
import { isBlank } from '../read/looks';
import type { Sequence } from './known';

/** So many rows tell whether values rise. */
const LOOKED_AT = 10_000;

/** How the values of a column follow each other. @param first whether it is the first variable of the extract */
export function sequenceOf(column: Column, first: boolean): Sequence {
  return { rising: risingOf(column), stretches: stretchesOf(column), first };
}

function risingOf(column: Column): number {
  const rows = Math.min(column.rows, LOOKED_AT);
  const { blank, value } = readersOf(column, rows);
  let [last, pairs, rising] = [-1, 0, 0];
  for (let row = 0; row < rows; row++) {
    if (Number.isNaN(column.digits(row)) && blank(row)) continue;
    if (last >= 0) {
      pairs++;
      if (!isBelow(column, value, row, last)) rising++;
    }
    last = row;
  }
  return pairs === 0 ? 0 : rising / pairs;
}

interface Readers {
  blank: (row: number) => boolean;
  value: (row: number) => number;
}

/** Reads the texts of rows: where there are fewer of those than rows, each once. */
function readersOf(column: Column, rows: number): Readers {
  const texts = column.form === 'dictionary' ? column.texts : null;
  return texts && !(texts instanceof NumberTexts) && texts.length < rows
    ? { blank: column.lift(isBlank), value: column.lift(Number) }
    : { blank: (row) => isBlank(column.text(row)), value: (row) => Number(column.text(row)) };
}

/** Whether a row holds less than another: numbers as such, all else by text. */
function isBelow(column: Column, value: Readers['value'], row: number, other: number): boolean {
  const digits = column.digits(row);
  const others = column.digits(other);
  if (digits === digits && others === others) return digits < others;
  const a = value(row);
  const b = value(other);
  return Number.isNaN(a) || Number.isNaN(b) ? column.text(row) < column.text(other) : a < b;
}

/** Stretches of rows with one text each. */
function stretchesOf(column: Column): number {
  if (column.form !== 'dictionary') {
    let stretches = column.rows > 0 ? 1 : 0;
    for (let row = 1; row < column.rows; row++) if (!column.isSame(row, row - 1)) stretches++;
    return stretches;
  }
  const { codes } = column;
  let [stretches, last] = [0, -1];
  for (let row = 0; row < codes.length; row++) {
    const code = codes[row];
    if (code !== last) stretches++;
    last = code;
  }
  return stretches;
}
