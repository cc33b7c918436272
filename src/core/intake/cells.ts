import type { Marks } from '../extract/extract';
import { isMarker } from '../infer/nothing';
import { inferStorage, type Written } from '../infer/storage';
import { isBlank } from '../read/looks';
import { tallyTexts } from '../tally/tally';
import { putUnder } from '../extract/put-under';

/** What the first rows say of how cells are written, each with its reason in words. */
export interface CellGuess {
  /** The decimal mark that columns show; `null` where none shows one, or they differ. */
  decimal: '.' | ',' | null;
  decimalBecause: string;
  order: 'dmy' | 'mdy' | null;
  orderBecause: string;
  /** Texts by which the cells seem to say that there is nothing, with the cells that hold them and the columns these are in. */
  markers: { text: string; count: number; columns: number }[];
  /** How each column would be read, in words. */
  columns: string[];
}

/** Looks at the cells of some rows, column by column. @param marks what a person fixed for cells that leave it open */
export function guessCells(
  names: readonly string[],
  rows: readonly string[][],
  fixed: Marks = {},
): CellGuess {
  const marks = new Map<string, string[]>();
  const orders = new Map<string, string[]>();
  const open = { mark: [] as string[], order: [] as string[] };
  const markers = new Map<string, { count: number; columns: Set<number> }>();
  const columns: string[] = [];
  names.forEach((name, column) => {
    const texts = rows.map((row) => row[column] ?? '');
    const tally = tallyTexts(texts);
    const written = inferStorage(tally);
    columns.push(
      inWords(
        fixed.decimal || fixed.order
          ? inferStorage(tally, { mark: fixed.decimal, order: fixed.order })
          : written,
      ),
    );
    for (const text of texts) {
      if (isBlank(text) || !isMarker(text)) continue;
      // A word such as "none" may be an answer among words; beside numbers and dates it is not.
      if (written.storage === 'text' && !/^[^\p{L}]+$|^n\W?a\W?$|null|nan|^<na>$|^\\n$/iu.test(text.trim()))
        continue;
      const found = markers.get(text.trim()) ?? { count: 0, columns: new Set<number>() };
      found.count++;
      found.columns.add(column);
      markers.set(text.trim(), found);
    }
    if (written.open === 'decimal-mark') open.mark.push(name);
    else if (written.storage === 'decimal') putUnder(marks, written.numberForm.decimal, name);
    if (written.open === 'date-order') open.order.push(name);
    else if (
      (written.storage === 'date' || written.storage === 'datetime') &&
      (written.dateForm === 'dmy' || written.dateForm === 'mdy')
    )
      putUnder(orders, written.dateForm, name);
  });
  const said = (
    found: ReadonlyMap<string, string[]>,
    words: Record<string, string>,
    undecided: readonly string[],
  ): string =>
    [
      ...[...found].map(
        ([key, columns]) =>
          `${words[key]} in ${columns.length === 1 ? columns[0] : `${columns.length} columns`}`,
      ),
      ...(undecided.length
        ? [
            undecided.length === 1
              ? `${undecided[0]} leaves it open`
              : `${undecided.length} columns leave it open`,
          ]
        : []),
    ].join(', ');
  return {
    decimal: marks.size === 1 ? ([...marks.keys()][0] as '.' | ',') : null,
    decimalBecause:
      said(marks, { '.': 'a point', ',': 'a comma' }, open.mark) || 'the rows looked at hold no decimals',
    order: orders.size === 1 ? ([...orders.keys()][0] as 'dmy' | 'mdy') : null,
    orderBecause:
      said(orders, { dmy: 'the day first', mdy: 'the month first' }, open.order) ||
      'the rows looked at hold no such dates',
    markers: [...markers]
      .map(([text, { count, columns }]) => ({ text, count, columns: columns.size }))
      .sort((a, b) => b.count - a.count),
    columns,
  };
}

/** How cells are written, as one reads it under a column's name. */
function inWords({ storage, numberForm, dateForm }: Written): string {
  switch (storage) {
    case 'integer':
      return 'whole numbers';
    case 'decimal':
      return numberForm.decimal === ',' ? 'decimals, comma' : 'decimals';
    case 'date':
    case 'datetime':
      return `${storage === 'date' ? 'dates' : 'dates with times'}${dateForm === 'dmy' ? ', day first' : dateForm === 'mdy' ? ', month first' : dateForm === 'month' ? ', months' : ''}`;
    case 'time':
      return 'times of day';
    case 'empty':
      return 'nothing';
    case 'text':
      return 'text';
  }
}
