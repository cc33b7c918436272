import type { Valid } from '../../infer/levels';

/** Median and median absolute deviation (times 1.4826, so that it is a standard deviation where values are normal) of transformed values. */
export interface Robust {
  median: number;
  scale: number;
}

/** @param values ascending after `transform`, which must keep their order */
export function robust(
  { values, counts }: Pick<Valid, 'values' | 'counts'>,
  transform: (x: number) => number,
): Robust | null {
  const rows = counts.reduce((sum, count) => sum + count, 0);
  if (rows === 0) return null;
  let middle = 0;
  let below = counts[0];
  while (below < rows / 2 && middle < values.length - 1) below += counts[++middle];
  const median = transform(values[middle]);
  // From the middle outwards, always to the side that is nearer, until half of the rows are passed.
  let [left, right] = [middle, middle + 1];
  let [passed, apart] = [0, 0];
  while (passed < rows / 2 && (left >= 0 || right < values.length)) {
    const toLeft = left >= 0 ? median - transform(values[left]) : Infinity;
    const toRight = right < values.length ? transform(values[right]) - median : Infinity;
    apart = Math.min(toLeft, toRight);
    passed += toLeft <= toRight ? counts[left--] : counts[right++];
  }
  return { median, scale: 1.4826 * apart };
}

/** Whether a quantity is skewed to the right and never below zero, so that its logarithm is the better scale. */
export function isSkewed({ values, counts }: Pick<Valid, 'values' | 'counts'>): boolean {
  if (values.length < 8 || values[0] < 0) return false;
  const rows = counts.reduce((sum, count) => sum + count, 0);
  const at = (part: number): number => {
    let below = 0;
    for (let i = 0; i < values.length; i++) if ((below += counts[i]) >= rows * part) return values[i];
    return values[values.length - 1];
  };
  const [low, middle, high] = [at(0.1), at(0.5), at(0.9)];
  return high - middle > 1.6 * (middle - low);
}

/** Typical step between neighbouring values around a place: the median of the gaps among its neighbours. */
export function stepAround(values: Float64Array, i: number, reach = 8): number {
  const gaps: number[] = [];
  for (let j = Math.max(1, i - reach); j <= Math.min(values.length - 1, i + reach); j++)
    gaps.push(values[j] - values[j - 1]);
  gaps.sort((a, b) => a - b);
  return gaps[gaps.length >> 1] ?? 1;
}

/** Median count of the nearest values on both sides, without the value itself. */
export function usualAround(counts: Float64Array, i: number, reach = 6): number {
  const near: number[] = [];
  for (let j = Math.max(0, i - reach); j <= Math.min(counts.length - 1, i + reach); j++)
    if (j !== i) near.push(counts[j]);
  near.sort((a, b) => a - b);
  return near[near.length >> 1] ?? 0;
}

/** 9.99, 4.95: prices end so, and many are the same. */
export const endsAsPrice = (value: number): boolean =>
  /\.(99|95|49)$/.test(value.toFixed(2)) && Math.abs(value * 100 - Math.round(value * 100)) < 1e-6;

/** Shares of a currency's unit that so many rows end in are how its prices end: 4.90, 7.90, 12.90. */
const LEAST_ENDING = 0.15;

/** Whether a price ends as many others of its variable do, in other than whole units. @param values ascending, with the rows of each */
export function endsAsOthers(value: number, { values, counts }: Pick<Valid, 'values' | 'counts'>): boolean {
  const endingOf = (one: number): number => Math.round(one * 100) % 100;
  const ending = endingOf(value);
  if (ending === 0) return false;
  let [rows, alike] = [0, 0];
  for (let i = 0; i < values.length; i++) {
    rows += counts[i];
    if (
      values[i] !== value &&
      endingOf(values[i]) === ending &&
      Math.abs(values[i] * 100 - Math.round(values[i] * 100)) < 1e-6
    )
      alike += counts[i];
  }
  return alike >= rows * LEAST_ENDING;
}
