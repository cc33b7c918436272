import type { Variable } from '../extract/extract';
import { isMeasure } from '../extract/words';
import { levelCoding } from '../infer/level-coding';
import { validOf, valueOf, type Level } from '../infer/levels';
import type { Bits } from '../extract/bits';
import { crossed } from '../rows/counting';
import type { Weight } from '../rows/records';
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
  /** Figures that the kind admits; `null` where it admits none. */
  statistics: {
    mean: number | null;
    sd: number | null;
    q1: number | null;
    median: number | null;
    q3: number | null;
  } | null;
}

/** The weights that texts stand for; NaN where one is blank, negative, or no number. */
export const weightOf = ({ inspected: { name, written } }: Weighting): Weight => ({
  variable: name,
  of: (text) => {
    const weight = valueOf(text, written) ?? NaN;
    return weight >= 0 ? weight : NaN;
  },
});

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
  const {
    sums,
    rows: positive,
    without,
  } = crossed(column.rows, [levelCoding(column, levels)], {
    within,
    weight: weighting.variable.column.lift(weightOf(weighting).of),
  });
  const isValid = ({ standing }: Level): boolean => standing === 'valid';
  const total = (of: Float64Array): number =>
    levels.reduce((sum, level, i) => (isValid(level) ? sum + of[i] : sum), 0);
  const [valid, rows] = [total(sums), total(positive)];
  return {
    weight: weighting.inspected.name,
    valid,
    rows,
    without,
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
  const [q1, median, q3] = [0.25, 0.5, 0.75].map((p) => weightedQuantile(weighed, rows, p));
  return { ...(isMeasure(kind) ? weightedMoments(weighed, rows) : { mean: null, sd: null }), q1, median, q3 };
}

/** A variable as it would be counted by its weights, for drawing. */
export function countedBy(inspected: Inspected, { codes }: Weighted): Inspected {
  return {
    ...inspected,
    levels: {
      ...inspected.levels,
      levels: inspected.levels.levels.flatMap((level, i) =>
        codes[i].sum > 0 ? [{ ...level, count: codes[i].sum }] : [],
      ),
    },
  };
}
