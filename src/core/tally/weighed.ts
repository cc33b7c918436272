/**
 * Statistics of values with counts. Every function takes values and, in the same order, the number of rows that hold
 * each; `sorted` ones need the values ascending. Nothing here knows where the values come from.
 */
export interface Weighed {
  values: ArrayLike<number>;
  counts: ArrayLike<number>;
}

/** Sum of values times counts, compensated (Neumaier 1974), so that small terms are not lost beside large ones. */
export function total(n: number, term: (i: number) => number): number {
  let sum = 0;
  let lost = 0;
  for (let i = 0; i < n; i++) {
    const x = term(i);
    const next = sum + x;
    lost += Math.abs(sum) >= Math.abs(x) ? sum - next + x : x - next + sum;
    sum = next;
  }
  return sum + lost;
}

/** Number of rows, or the sum of their weights; as `total` adds them up. */
export function size({ counts }: Weighed): number {
  let sum = 0;
  let lost = 0;
  for (let i = 0; i < counts.length; i++) {
    const x = counts[i];
    const next = sum + x;
    lost += Math.abs(sum) >= Math.abs(x) ? sum - next + x : x - next + sum;
    sum = next;
  }
  return sum + lost;
}

/** Sum of distances from a place times counts; as `total` adds them up. */
export function sumAbout({ values, counts }: Weighed, place: number): number {
  let sum = 0;
  let lost = 0;
  for (let i = 0; i < values.length; i++) {
    const x = (values[i] - place) * counts[i];
    const next = sum + x;
    lost += Math.abs(sum) >= Math.abs(x) ? sum - next + x : x - next + sum;
    sum = next;
  }
  return sum + lost;
}
