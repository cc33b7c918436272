import { standsOutBy } from '../cross/standing-out';
import type { Figure, MeasureFigure } from '../cross/kept-table';
import type { CrossDocument, TableTold } from '../inspect/cross-document';
import { figure, percent, whole } from './words';

/** What figures are called where they stand beside one another. */
export const FIGURE_NAMES: Record<Figure, string> = {
  rows: 'rows',
  weighted: 'weighted',
  ofRow: 'of the row',
  ofColumn: 'of the column',
  ofAll: 'of all',
  expected: 'expected',
  residual: 'adjusted residual',
};
export const MEASURE_NAMES: Record<MeasureFigure, string> = {
  n: 'values',
  mean: 'mean',
  median: 'median',
  sd: 'SD',
};

type Cell = TableTold['cells'][number];
type Margin = TableTold['down'][number];
export type Measured = NonNullable<Cell['measure']>;

/** The figures that say something: of a table of one column, shares are of that column, and nothing is expected. */
export function figuresShown(shows: readonly Figure[], across: boolean): Figure[] {
  if (across) return [...shows];
  const found = shows.flatMap((one): Figure[] =>
    one === 'expected' || one === 'residual' ? [] : one === 'ofRow' || one === 'ofAll' ? ['ofColumn'] : [one],
  );
  return found.length ? [...new Set(found)] : ['rows'];
}

/** "+4.2": how far a cell stands out; empty where it does not. */
export const standsOut = (residual: number | null): string => (standsOutBy(residual) ? signed(residual) : '');

export const signed = (value: number): string =>
  `${value > 0 ? '+' : value < 0 ? '−' : ''}${Math.abs(value).toFixed(1)}`;

/** A figure of a cell, as it is written; `–` where it is undefined. */
export function cellFigure(cell: Cell, what: Figure): string {
  switch (what) {
    case 'rows':
      return whole(cell.rows);
    case 'weighted':
      return weightedText(cell.weighted);
    case 'ofRow':
      return percent(cell.shareOfRow) || '–';
    case 'ofColumn':
      return percent(cell.shareOfColumn) || '–';
    case 'ofAll':
      return percent(cell.shareOfAll) || '–';
    case 'expected':
      return cell.expected === null ? '–' : cell.expected.toFixed(1);
    case 'residual':
      return cell.adjustedResidual === null ? '–' : signed(cell.adjustedResidual);
  }
}

/** A figure of a margin: of a whole line (`down`), of a whole column (`across`). */
export function marginFigure(margin: Margin, what: Figure, side: 'down' | 'across'): string {
  const all = margin.rows > 0 ? '100 %' : '–';
  switch (what) {
    case 'rows':
      return whole(margin.rows);
    case 'weighted':
      return weightedText(margin.weighted);
    case 'ofRow':
      return side === 'down' ? all : percent(margin.share) || '–';
    case 'ofColumn':
      return side === 'across' ? all : percent(margin.share) || '–';
    case 'ofAll':
      return percent(margin.share) || '–';
    case 'expected':
    case 'residual':
      return '';
  }
}

/** A figure of all cells of a table. */
export const totalFigure = (table: TableTold, what: Figure): string =>
  what === 'rows'
    ? whole(table.rows)
    : what === 'weighted'
      ? weightedText(table.weighted)
      : what === 'expected' || what === 'residual'
        ? ''
        : table.rows > 0
          ? '100 %'
          : '–';

export function measureFigure(measure: Measured | undefined, what: MeasureFigure): string {
  if (!measure) return '–';
  if (what === 'n') return whole(measure.n);
  const value = measure[what];
  return value === null ? '–' : figure(value, 4);
}

/** Sums of weights below a hundred are told with a decimal. */
const weightedText = (sum: number): string =>
  Number.isInteger(sum) || sum >= 100 ? whole(sum) : sum.toFixed(1);

/** What was left out of a table, each with the reason: "5 without a valid answer to sat". */
export function leftOutSays(
  { base: { leftOut }, down, across, within }: CrossDocument,
  called: (name: string) => string = (name) => name,
): string[] {
  const lacking = [
    [leftOut.down, down],
    [leftOut.across, across],
    [leftOut.within, within],
  ] as const;
  return [
    ...lacking.flatMap(([n, side]) =>
      n > 0 && side ? [`${whole(n)} without a valid answer to ${called(side.variable)}`] : [],
    ),
    ...(leftOut.weight > 0 ? [`${whole(leftOut.weight)} without a weight`] : []),
  ];
}

/** A code as a side of a table names it: states without a code of their own in words, bins by what they hold. */
export function codeSays(
  { code, label, state }: CrossDocument['down']['codes'][number],
  { bins }: Pick<CrossDocument['down'], 'bins'> = {},
): string {
  if (bins && state === 'valid' && label !== null) return label;
  if (state === 'valid' || state === 'missing') return label === null ? code : `${code} ${label}`;
  if (code === state) return state === 'notAsked' ? 'not asked' : state;
  return label === null ? code : `${code} ${label}`;
}
