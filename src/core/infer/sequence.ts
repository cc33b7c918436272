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
  let [last, pairs, rising] = ['', 0, 0];
  for (let row = 0; row < Math.min(column.rows, LOOKED_AT); row++) {
    const text = column.text(row);
    if (isBlank(text)) continue;
    if (last !== '') {
      pairs++;
      if (!isBelow(text, last)) rising++;
    }
    last = text;
  }
  return pairs === 0 ? 0 : rising / pairs;
}

/** Numbers as such, all else by text. */
function isBelow(text: string, other: string): boolean {
  const [a, b] = [Number(text), Number(other)];
  return Number.isNaN(a) || Number.isNaN(b) ? text < other : a < b;
}

/** Stretches of rows with one text each; of a column whose texts hardly repeat every row is one. */
function stretchesOf(column: Column): number {
  if (column.form === 'packed') return column.rows;
  const { codes } = column;
  let stretches = codes.length > 0 ? 1 : 0;
  for (let row = 1; row < codes.length; row++) if (codes[row] !== codes[row - 1]) stretches++;
  return stretches;
}
