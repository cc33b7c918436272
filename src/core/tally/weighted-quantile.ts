import { size, type Weighed } from './weighed';

/**
 * Quantile of sorted values under weights: the weights are scaled to mean 1, so that they add up to n, and the rule of
 * type 7 is applied to the cumulative weight: the order statistic of rank k is the first value at which k is reached.
 *
 * Example: 1, 2, 3 of weights 1, 1, 2, scaled to ¾, ¾, 1½ and adding up to ¾, 1½, 3 → the second of three is reached at 3: median 3.
 *
 * @param counts here sums of weights @param n rows with a positive weight @returns `null` without any
 */
export function weightedQuantile({ values, counts }: Weighed, n: number, p: number): number | null {
  const sum = size({ values, counts });
  if (n === 0 || !(sum > 0)) return null;
  const place = (n - 1) * p;
  const below = Math.floor(place + RANK_SLACK);
  const at = (rank: number): number => {
    let passed = 0;
    let last = NaN;
    for (let i = 0; i < values.length; i++) {
      if (!(counts[i] > 0)) continue;
      last = values[i];
      passed += (counts[i] / sum) * n;
      if (passed >= rank + 1 - RANK_SLACK) break;
    }
    return last;
  };
  const lower = at(below);
  return place - below <= RANK_SLACK ? lower : lower + (place - below) * (at(below + 1) - lower);
}
/** Sums of scaled weights miss whole numbers by their rounding. */
const RANK_SLACK = 1e-7;
