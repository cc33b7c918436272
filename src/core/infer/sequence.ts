import type { Column } from '../extract/column';
import { isBlank } from '../read/looks';
import type { Sequence } from './known';

/** So many rows tell whether values rise. */
const LOOKED_AT = 10_000;

/** How the values of a column follow each other. @param first whether it is the first variable of the extract */
export function sequenceOf(column: Column, first: boolean): Sequence {
  return { rising: risingOf(column), stretches: stretchesOf(column), first };
}

function risingOf(column: Column): number {
  let [last, pairs, rising] = [-1, 0, 0];
  for (let row = 0; row < Math.min(column.rows, LOOKED_AT); row++) {
    if (Number.isNaN(column.digits(row)) && isBlank(column.text(row))) continue;
    if (last >= 0) {
      pairs++;
      if (!isBelow(column, row, last)) rising++;
    }
    last = row;
  }
  return pairs === 0 ? 0 : rising / pairs;
}

/** Whether a row holds less than another: numbers as such, all else by text. */
function isBelow(column: Column, row: number, other: number): boolean {
  const [digits, others] = [column.digits(row), column.digits(other)];
  if (digits === digits && others === others) return digits < others;
  const [text, before] = [column.text(row), column.text(other)];
  const [a, b] = [Number(text), Number(before)];
  return Number.isNaN(a) || Number.isNaN(b) ? text < before : a < b;
}

/** Stretches of rows with one text each. */
function stretchesOf(column: Column): number {
  if (column.form !== 'dictionary') {
    let stretches = column.rows > 0 ? 1 : 0;
    for (let row = 1; row < column.rows; row++) if (!column.isSame(row, row - 1)) stretches++;
    return stretches;
  }
  const { codes } = column;
  let stretches = codes.length > 0 ? 1 : 0;
  for (let row = 1; row < codes.length; row++) if (codes[row] !== codes[row - 1]) stretches++;
  return stretches;
}
