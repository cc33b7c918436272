import { size, type Weighed } from './weighed';

/**
 * Quantile of sorted values, type 7 of Hyndman & Fan (1996): linear between the order statistics around 1 + (n − 1)p.
 * @param p from 0 to 1 @returns `null` without values
 */
export function quantile({ values, counts }: Weighed, p: number): number | null {
  const n = size({ values, counts });
  if (n === 0) return null;
  const place = (n - 1) * p;
  const below = Math.floor(place);
  const lower = valueAt({ values, counts }, below);
  if (place === below) return lower;
  const upper = valueAt({ values, counts }, below + 1);
  return lower + (place - below) * (upper - lower);
}

/**
 * Quantile of ordered categories: the first whose cumulative share reaches `p`, type 1 of Hyndman & Fan (1996). It is always
 * one of the values.
 *
 * Example: 1, 2, 3, 4 → the median is 2. @param weighed rows, or sums of weights @returns `null` without values
 */
export function step(weighed: Weighed, p: number): number | null {
  const { values, counts } = weighed;
  const reach = size(weighed) * p * (1 - 1e-12);
  let passed = 0;
  for (let i = 0; i < values.length; i++) {
    passed += counts[i];
    if (passed > 0 && passed >= reach) return values[i];
  }
  return null;
}

/** The zero-based `rank`-th of all rows in order. */
function valueAt({ values, counts }: Weighed, rank: number): number {
  let passed = 0;
  for (let i = 0; i < values.length; i++) {
    passed += counts[i];
    if (rank < passed) return values[i];
  }
  return values[values.length - 1];
}
