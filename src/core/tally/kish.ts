import { size, sumAbout, total, type Weighed } from './weighed';

/** What a set of weights does to the precision of a mean. */
export interface Kish {
  /** Effective sample size, (Σw)² ÷ Σw², in rows. */
  effective: number;
  /** Design effect of unequal weights, n·Σw² ÷ (Σw)². */
  designEffect: number;
}

/**
 * Effective sample size and design effect of weighting alone (Kish 1965, Survey Sampling, 11.7; 1992, J. Official Statistics 8).
 * Example: weights 1, 1, 2 → (4)² ÷ 6 = 2.667 of 3 rows, design effect 1.125.
 * @param weights positive values with the number of rows that hold each @returns `null` where there is none
 */
export function kish({ values, counts }: Weighed): Kish | null {
  const n = size({ values, counts });
  const sum = sumAbout({ values, counts }, 0);
  const squares = total(values.length, (i) => values[i] * values[i] * counts[i]);
  return n > 0 && squares > 0 && sum > 0
    ? { effective: (sum * sum) / squares, designEffect: (n * squares) / (sum * sum) }
    : null;
}
