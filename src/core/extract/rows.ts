import { has, type Bits } from './bits';
import type { Column } from './column';

/**
 * For each list of raw texts the first zero-based rows, at most `most`, that hold one of them; all lists in one pass.
 * Texts of different lists must differ.
 * @param within only rows that count; all where there is none
 */
export function findRows(
  column: Column,
  lists: readonly (readonly string[])[],
  most: number,
  within: Bits | null = null,
): number[][] {
  const found = lists.map((): number[] => []);
  let open = lists.length;
  const take = (list: number, row: number): void => {
    if (found[list].length >= most || (within !== null && !has(within, row))) return;
    found[list].push(row);
    if (found[list].length === most) open--;
  };
  const listOf = new Map(lists.flatMap((texts, list) => texts.map((text) => [text, list] as const)));
  if (column.form === 'dictionary') {
    const wanted = new Int32Array(column.texts.length).fill(-1);
    column.texts.forEach((text, code) => (wanted[code] = listOf.get(text) ?? -1));
    for (let row = 0; row < column.rows && open > 0; row++)
      if (wanted[column.codes[row]] >= 0) take(wanted[column.codes[row]], row);
    return found;
  }
  if (column.form === 'numbers') {
    const wanted = new Map([...listOf].map(([text, list]) => [column.cellOf(text), list]));
    for (let row = 0; row < column.rows && open > 0; row++) {
      const list = wanted.get(column.cells[row]);
      if (list !== undefined) take(list, row);
    }
    return found;
  }
  // Only cells of a length that is wanted are read as text.
  const lengths = new Set([...listOf.keys()].map((text) => new TextEncoder().encode(text).length));
  const { ends } = column;
  for (let row = 0; row < column.rows && open > 0; row++) {
    if (!lengths.has(ends[row] - (row === 0 ? 0 : ends[row - 1]))) continue;
    const list = listOf.get(column.text(row));
    if (list !== undefined) take(list, row);
  }
  return found;
}
