import { size, sumAbout, total, type Weighed } from './weighed';

/**
 * Mean and standard deviation of weighted rows: Σwx ÷ Σw and the root of Σw(x−m)² ÷ (Σw·(n−1)/n).
 *
 * Example: 1 and 3 of weights 3 and 1 → mean 1.5, sd √(3 ÷ (4 · ½)) = 1.224…
 *
 * @param counts here the sum of weights of the rows that hold each value
 * @param n rows with a positive weight
 */
export function weightedMoments(
  { values, counts }: Weighed,
  n: number,
): { mean: number | null; sd: number | null } {
  const sum = size({ values, counts });
  if (n === 0 || !(sum > 0)) return { mean: null, sd: null };
  const rough = sumAbout({ values, counts }, 0) / sum;
  const mean = rough + sumAbout({ values, counts }, rough) / sum;
  const squares = total(values.length, (i) => (values[i] - mean) ** 2 * counts[i]);
  return { mean, sd: n > 1 ? Math.sqrt(squares / ((sum * (n - 1)) / n)) : null };
}
