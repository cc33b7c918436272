import type { Extract } from '../extract/extract';
import type { Records } from './records';
import type { RowTest } from './row-test';

/** What one condition does to the rows that are there. */
export interface ConditionCounts {
  /** Of all rows that are there, by this condition alone. */
  keeps: number;
  drops: number;
  /** Rows that fail it and no other. */
  dropsAlone: number;
  /** Rows left after it and those before it. */
  left: number;
}

/** Which of all rows count: those that pass every test, without those that a person set aside. */
export interface RowsAsked {
  tests: readonly RowTest[];
  /** Zero-based places of rows that are not there, among all rows. */
  aside: ReadonlySet<number>;
}

/** The rows that count, as if nothing else were there. */
export interface KeptRows {
  /** Of the same variables; a sample of the rows is held, and all of them were counted. `null` where it was not wanted. */
  extract: Extract | null;
  /** Number of rows that are there, and of those that count. */
  all: number;
  kept: number;
  /** What each test does. */
  conditions: ConditionCounts[];
}

/** So many rows are sorted of those that are not held. */
export const MOST_SORTED = 100_000;

/** Whatever can go through all rows of an extract again, of which only a sample is held. */
export interface AllRows {
  /** @param wanted whether more is wanted than how many rows are kept, and why the others are not */
  kept(asked: RowsAsked, wanted: boolean): Promise<KeptRows>;
  /** Counts in cells, of the rows that count. What is asked in one go is answered by going through the rows once. */
  counting(asked: RowsAsked): CellCounting;
  /** Some records of all rows, in the order wanted; absent where they cannot be had without holding all. */
  list?(asked: RowsAsked, wanted: ListWanted): Promise<Listed>;
  /** Zero-based places of all rows that count, in the order wanted, for records to be looked at one after the other; of sorted rows the first alone. */
  places?(asked: RowsAsked, order: readonly OrderWanted[]): Promise<Uint32Array>;
  /** What rows hold, wherever they are. @param places zero-based, among all rows @returns for each of them a text of each variable */
  textsAt?(places: readonly number[], variables: readonly string[]): Promise<string[][]>;
}

/** What rows are sorted by, the first leading; what has no rank stands last, up or down. */
export interface OrderWanted {
  variable: string;
  down: boolean;
  /** Whether it is in the order of numbers: else of ranks, or of its texts where those are not all known. */
  numeric: boolean;
  /** The rank of a text, or the number that it is; NaN for none. */
  of(text: string): number;
  /** Where words stand in their own order: the word that a text with a rank counts as. */
  word?(text: string): string;
}

/** Which records are wanted. */
export interface ListWanted {
  /** Those that the tests drop instead of those that they keep. */
  dropped: boolean;
  order: readonly OrderWanted[];
  /** Only rows that pass this too. */
  find: RowTest | null;
  variables: readonly string[];
  /** How many to pass over, and how many to tell. */
  from: number;
  take: number;
}

/** Records as they were listed. */
export interface Listed {
  /** Rows that pass what was to be found; `null` where nothing was. */
  found: number | null;
  rows: {
    /** Zero-based, among all rows. */
    place: number;
    /** In the order of the variables wanted. */
    texts: string[];
    /** Zero-based tests that it fails. */
    failed: number[];
  }[];
}

/** What can be counted of all rows without holding them; which of them count is settled, whatever `within` says. */
export type CellCounting = Pick<Records, 'cross' | 'measured'>;
