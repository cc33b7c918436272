import type { Tally } from '../tally/tally';
import type { Bits } from '../extract/bits';
import type { Coding, Lifted } from '../extract/coding';
import type { Crossed, Valued } from './counting';

/**
 * Whatever holds the rows of an extract and answers questions of them: columns in memory, and whatever else will. Stations
 * ask nothing but this. All answers may take their time; none gives more rows than were asked for. Rows are zero-based, of
 * the whole extract; `within` are the rows that count, all where it is `null`.
 */
export interface Records {
  readonly rows: number;
  /** Distinct texts of a variable with the number of rows that hold each. */
  tally(variable: string, within: Bits | null): Promise<Tally>;
  /** Rows, or sums of weights, by one, two or three sorts of categories at once. */
  cross(by: readonly Categories[], within: Bits | null, weight?: Numbers | null): Promise<Crossed>;
  /** The values of a measure in each of the cells that `cross` counts; rows of weight zero are left out where there are weights. */
  measured(
    by: readonly Categories[],
    measure: Numbers,
    within: Bits | null,
    weight?: Numbers | null,
  ): Promise<Valued[]>;
  /** For each list of raw texts the first rows that hold one of them, at most `most`. Texts of different lists differ. */
  firstRows(
    variable: string,
    lists: readonly (readonly string[])[],
    most: number,
    within: Bits | null,
  ): Promise<number[][]>;
  /** The raw texts of some rows, each in the order of the variables named. */
  cells(rows: readonly number[], variables: readonly string[]): Promise<string[][]>;
  /** Rows that count, `take` of them behind the first `from` that do. */
  page(from: number, take: number, within: Bits | null): Promise<number[]>;
}

/** Texts of a variable in categories, from 0 up to `size` − 1; −1 for none. Without a variable: the file of a row. */
export interface Categories {
  variable: string | null;
  size: number;
  of(text: string): number;
  /** The same for each row, where it is known already: a holder of the columns need not read texts. */
  coding?: Coding;
}

/** A variable as numbers, for measuring and weighting. `of`: the number that a text stands for; NaN for none. */
export interface Numbers {
  variable: string;
  of(text: string): number;
  /** Numbers below are none, also where who is asked reads texts by itself. */
  from?: number;
  /** The same for each row, where it is known already. */
  lifted?: Lifted;
}

/** The file that each row stands in, the first `size` of them. */
export const byFile = (size: number): Categories => ({ variable: null, size, of: () => -1 });
