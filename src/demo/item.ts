import type { Chance } from './random';

/** A made-up household in one wave, as it is: what the questionnaire then asks about is drawn from this. */
export interface Household {
  /** Its number among all households that ever took part, from 0. */
  number: number;
  /** Its place among the rows of the wave, from 0. */
  row: number;
  year: number;
  id: string;
  adults: number;
  children: number;
  age: number;
  income: number;
  owner: boolean;
  dwelling: number;
  boiler: boolean;
  broke: boolean;
  /** How much they care for keeping things going, mean 0. */
  care: number;
  town: number;
  parish: number;
  /** Day of the interview, days since 1970-01-01. */
  day: number;
}

/** One code of a variable in the codebook; the published number of rows stands beside it. */
export type Code = readonly [code: number | string, label: string, missing?: 'missing'];

/** One variable of the panel: what the codebook says of it, and how its cells come about. */
export interface Item {
  name: string;
  label: string;
  group: string;
  question?: string;
  universe?: string;
  units?: string;
  interval?: 'discrete' | 'continuous';
  codes?: readonly Code[];
  range?: readonly [number, number];
  weight?: boolean;
  /** Digits after the decimal point, which the fixed-width twin leaves implied. */
  decimals?: number;
  /** A cell; `null` is blank. */
  draw(household: Household, chance: Chance): string | number | null;
  /** What is planted into it, and which rule should find it. */
  faults?: readonly Fault[];
}

/** A planted fault: in so many rows of some waves, cells become something else. */
export interface Fault {
  rule: string;
  /** What is written there; a function makes it of what stood there. */
  write: readonly (string | ((cell: string) => string))[];
  /** Codes that a flag on it names, where they are not what is written. */
  codes?: readonly string[];
  /** Other variables that the fault is about. */
  beside?: readonly string[];
  /** Rows of each wave for each text, in the same order. */
  rows: readonly number[];
  /** Waves that have it; all by default. */
  waves?: readonly number[];
  /** Cells that it may take the place of; those that hold something by default. */
  where?: (cell: string) => boolean;
}

export const NO_ANSWER: Code = [9, 'No answer', 'missing'];
export const REFUSED: Code = [99, 'Refused', 'missing'];
export const YES_NO: readonly Code[] = [
  [1, 'Yes'],
  [2, 'No'],
];

/** With probability `p` the code of no answer instead of what was drawn. */
export const sometimes =
  (p: number, code: number, draw: Item['draw']): Item['draw'] =>
  (household, chance) =>
    chance.odds(p) ? code : draw(household, chance);
/** Blank for households that were not asked. */
export const askedIf =
  (asked: (household: Household) => boolean, draw: Item['draw']): Item['draw'] =>
  (household, chance) =>
    asked(household) ? draw(household, chance) : null;
/** A step of a scale from `low` to `high` around a centre. */
export const step = (low: number, high: number, centre: number, spread: number, chance: Chance): number =>
  Math.min(high, Math.max(low, Math.round(centre + spread * chance.normal())));
/** A day as ISO 8601 text. @param day days since 1970-01-01 */
export const iso = (day: number): string => new Date(day * 86400000).toISOString().slice(0, 10);
