import type { Variable } from '../extract/extract';
import { isMeasure } from '../extract/words';
import { levelCoding } from '../infer/level-coding';
import type { Level } from '../infer/level-list';
import { validOf } from '../infer/levels';
import type { Bits } from '../extract/bits';
import { crossed } from '../rows/counting';
import { weightOf } from './as-counted';
import { kish, type Kish } from '../tally/kish';
import { step } from '../tally/quantile';
import { total } from '../tally/weighed';
import { weightedMoments } from '../tally/weighted-moments';
import { weightedQuantile } from '../tally/weighted-quantile';
import type { Inspected } from './inspected';

/** A variable by which rows are weighted. */
export interface Weighting {
  variable: Variable;
  inspected: Inspected;
}

/** What a variable comes to when its rows are weighted. */
export interface Weighted {
  weight: string;
  /** Sum of weights of the rows that hold each code, missing ones included. */
  codes: { code: string; sum: number; shareOfValid: number | null }[];
  /** Sum of weights of all valid rows. */
  valid: number;
  /** Valid rows with a positive weight. */
  rows: number;
  /** Rows left out because their weight is blank, negative or no number. */
  without: number;
  /** Whether sums stand for the population: the weights add up to far more than the rows. */
  grosses: boolean;
  /** Figures that the kind admits; `null` where it admits none. */
  statistics: {
    mean: number | null;
    sd: number | null;
    q1: number | null;
    median: number | null;
    q3: number | null;
  } | null;
}

/**
 * Σw for each code, and the weighted figures; a blank or negative weight leaves its row out.
 * @param within the rows that count
 */
export function weightedOf(
  variable: Variable,
  inspected: Inspected,
  weighting: Weighting,
  within: Bits | null,
): Weighted {
  const { levels } = inspected.levels;
  const { column } = variable;
  const { sums, positive, without } = crossed(column.rows, [levelCoding(column, levels)], {
    within,
    weight: weightOf(weighting.inspected).lifted ?? null,
  });
  const isValid = ({ standing }: Level): boolean => standing === 'valid';
  const ofValid = (of: Float64Array): number =>
    levels.reduce((sum, level, i) => (isValid(level) ? sum + of[i] : sum), 0);
  const [valid, rows] = [ofValid(sums), ofValid(positive)];
  return {
    weight: weighting.inspected.name,
    valid,
    rows,
    without,
    grosses: asWeight(weighting.inspected, true)?.grosses ?? false,
    codes: levels.map((level, i) => ({
      code: level.code,
      sum: sums[i],
      shareOfValid: isValid(level) && valid > 0 ? sums[i] / valid : null,
    })),
    statistics: figuresOf(inspected, sums, rows),
  };
}

function figuresOf({ kind, levels }: Inspected, sums: Float64Array, rows: number): Weighted['statistics'] {
  const valid = levels.levels.flatMap((level, i) =>
    level.standing === 'valid' && level.value !== null ? [{ value: level.value, sum: sums[i] }] : [],
  );
  if (valid.length === 0 || !validOf(levels).ascending || (!isMeasure(kind) && kind !== 'ordinal'))
    return null;
  const weighed = { values: valid.map(({ value }) => value), counts: valid.map(({ sum }) => sum) };
  const [q1, median, q3] = [0.25, 0.5, 0.75].map((p) =>
    kind === 'ordinal' ? step(weighed, p) : weightedQuantile(weighed, rows, p),
  );
  return { ...(isMeasure(kind) ? weightedMoments(weighed, rows) : { mean: null, sd: null }), q1, median, q3 };
}

/** What a variable is worth as a weight. */
export interface AsWeight {
  /** Whether it is in force. */
  inForce: boolean;
  /** Rows that count: with a positive weight, with zero, below zero, and without a number. */
  positive: number;
  zero: number;
  negative: number;
  without: number;
  /** Sum of the weights that are not negative. */
  sum: number;
  kish: Kish | null;
  /** Whether they add up to far more than the rows: what is weighted then stands for the population. */
  grosses: boolean;
}

/** Weights that were made to add up to the rows, or to one, do so nearly. */
const GROSSES_FROM = 1.5;

/** @returns `null` for what has no numbers */
export function asWeight({ levels, counts }: Inspected, inForce: boolean): AsWeight | null {
  const { values, counts: rows } = validOf(levels);
  if (values.length === 0) return null;
  let [positive, zero, negative] = [0, 0, 0];
  values.forEach((value, i) => {
    if (value > 0) positive += rows[i];
    else if (value === 0) zero += rows[i];
    else negative += rows[i];
  });
  const from = values.findIndex((value) => value > 0);
  const above =
    from < 0 ? { values: [], counts: [] } : { values: values.subarray(from), counts: rows.subarray(from) };
  const sum = total(above.values.length, (i) => above.values[i] * above.counts[i]);
  return {
    inForce,
    positive,
    zero,
    negative,
    without: counts.all - positive - zero - negative,
    sum,
    kish: kish(above),
    grosses: sum > (positive + zero) * GROSSES_FROM,
  };
}

/** A variable as it would be counted by its weights, for drawing. */
export function countedBy(inspected: Inspected, { codes }: Weighted): Inspected {
  return {
    ...inspected,
    levels: {
      ...inspected.levels,
      levels: inspected.levels.levels.recounted(codes.map(({ sum }) => sum)),
    },
  };
}
