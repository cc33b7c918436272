import { associationOf } from '../cross/standing-out';
import { summaryOf, type Summary } from '../cross/summary';
import type { Crossed, Valued } from '../rows/counting';
import type { Side } from './sides';
import type { TableTold } from './cross-document';

/** Cells of one table, line by line, and the values of a measure in each. */
export interface Part {
  rows: Float64Array;
  sums: Float64Array;
  positive: Float64Array;
  measured: readonly (readonly Valued[])[] | null;
}

export const sum = (of: ArrayLike<number>): number => {
  let all = 0;
  for (let i = 0; i < of.length; i++) all += of[i];
  return all;
};
export const share = (part: number, whole: number): number | null => (whole > 0 ? part / whole : null);

/**
 * The table of each level of a third variable.
 * @param counted cells by line, then column, then level @param size cells of one table
 */
export function partsOf(
  counted: Crossed,
  measured: readonly Valued[] | null,
  size: number,
  levels: number,
): Part[] {
  const cut = (of: Float64Array, level: number): Float64Array =>
    Float64Array.from({ length: size }, (_, cell) => of[cell * levels + level]);
  return Array.from({ length: levels }, (_, level): Part => ({
    rows: cut(counted.rows, level),
    sums: cut(counted.sums, level),
    positive: cut(counted.positive, level),
    measured: measured && Array.from({ length: size }, (__, cell) => [measured[cell * levels + level]]),
  }));
}

/** The table of all levels together. */
export function wholeOf(
  counted: Crossed,
  measured: readonly Valued[] | null,
  size: number,
  levels: number,
): Part {
  const add = (of: Float64Array): Float64Array => {
    const all = new Float64Array(size);
    for (let i = 0; i < of.length; i++) all[Math.floor(i / levels)] += of[i];
    return all;
  };
  return {
    rows: add(counted.rows),
    sums: add(counted.sums),
    positive: add(counted.positive),
    measured:
      measured &&
      Array.from({ length: size }, (_, cell) => measured.slice(cell * levels, (cell + 1) * levels)),
  };
}

/** @param small cells of fewer rows are small @param weighted whether weights are more than ones */
export function tableOf(
  { rows, sums, positive, measured }: Part,
  within: string | null,
  down: Side,
  across: Side | null,
  small: number,
  weighted: boolean,
): TableTold {
  const [D, A] = [down.codes.length, across?.codes.length ?? 1];
  const lines = down.codes.map((_, i) => Array.from({ length: A }, (__, j) => i * A + j));
  const columns = Array.from({ length: A }, (_, j) => Array.from({ length: D }, (__, i) => i * A + j));
  const of = (values: Float64Array, at: readonly number[]): number =>
    at.reduce((all, cell) => all + values[cell], 0);
  const measure = (at: readonly number[]): { measure: Summary } | Record<string, never> =>
    measured
      ? {
          measure: summaryOf(
            at.flatMap((cell) => measured[cell]),
            weighted,
          ),
        }
      : {};
  const total = sum(sums);
  const association = across && associationOf(sums, D, A, sum(positive));
  const ofLine = lines.map((at) => of(sums, at));
  const ofColumn = columns.map((at) => of(sums, at));
  const margin = (code: string, at: readonly number[]) => ({
    code,
    rows: of(rows, at),
    weighted: of(sums, at),
    share: share(of(sums, at), total),
    ...measure(at),
  });
  return {
    within,
    rows: sum(rows),
    weighted: total,
    chiSquare: association?.chiSquare ?? null,
    degreesOfFreedom: association?.degreesOfFreedom ?? null,
    cramersV: association?.cramersV ?? null,
    ...measure(lines.flat()),
    down: down.codes.map(({ code }, i) => margin(code, lines[i])),
    across: across && across.codes.map(({ code }, j) => margin(code, columns[j])),
    cells: down.codes.flatMap((line, i) =>
      Array.from({ length: A }, (_, j) => {
        const cell = i * A + j;
        return {
          down: line.code,
          across: across ? across.codes[j].code : null,
          rows: rows[cell],
          weighted: sums[cell],
          shareOfRow: share(sums[cell], ofLine[i]),
          shareOfColumn: share(sums[cell], ofColumn[j]),
          shareOfAll: share(sums[cell], total),
          expected: association?.expected[cell] ?? null,
          adjustedResidual: association?.residuals[cell] ?? null,
          small: rows[cell] >= 1 && rows[cell] < small,
          ...measure([cell]),
        };
      }),
    ),
  };
}
