/**
 * Statistics of values with counts. Every function takes values and, in the same order, the number of rows that hold
 * each; `sorted` ones need the values ascending. Nothing here knows where the values come from.
 */
export interface Weighed {
  values: ArrayLike<number>;
  counts: ArrayLike<number>;
}

/** Sum of values times counts, compensated (Neumaier 1974), so that small terms are not lost beside large ones. */
function total(n: number, term: (i: number) => number): number {
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

export const size = ({ counts }: Weighed): number => total(counts.length, (i) => counts[i]);

export interface Moments {
  n: number;
  mean: number | null;
  /** Sample standard deviation, divisor n − 1; `null` under two values. */
  sd: number | null;
  /** Its square, the sample variance. */
  variance: number | null;
  /** Adjusted Fisher–Pearson G1; `null` under three values or without spread (Joanes & Gill 1998). */
  skewness: number | null;
  /** Excess G2; `null` under four values or without spread (Joanes & Gill 1998). */
  kurtosis: number | null;
}

/** Mean, standard deviation, skewness and excess kurtosis, in two passes: first the mean, then powers of the distances. */
export function moments({ values, counts }: Weighed): Moments {
  const length = values.length;
  const n = size({ values, counts });
  if (n === 0) return { n, mean: null, sd: null, variance: null, skewness: null, kurtosis: null };
  const rough = total(length, (i) => values[i] * counts[i]) / n;
  const mean = rough + total(length, (i) => (values[i] - rough) * counts[i]) / n;
  let m2 = 0;
  let m3 = 0;
  let m4 = 0;
  let [lost2, lost3, lost4] = [0, 0, 0];
  // Kahan's compensation for each of the three sums; all terms of the first and third have one sign.
  for (let i = 0; i < length; i++) {
    const distance = values[i] - mean;
    const square = distance * distance;
    const y2 = square * counts[i] - lost2;
    const t2 = m2 + y2;
    lost2 = t2 - m2 - y2;
    m2 = t2;
    const y3 = square * distance * counts[i] - lost3;
    const t3 = m3 + y3;
    lost3 = t3 - m3 - y3;
    m3 = t3;
    const y4 = square * square * counts[i] - lost4;
    const t4 = m4 + y4;
    lost4 = t4 - m4 - y4;
    m4 = t4;
  }
  const sd = n > 1 ? Math.sqrt(m2 / (n - 1)) : null;
  // A spread below the rounding of the mean itself is no spread.
  const spread = m2 > 0 && Math.sqrt(m2 / n) > Math.abs(mean) * 1e-15;
  const g1 = m3 / n / (m2 / n) ** 1.5;
  const g2 = m4 / n / (m2 / n) ** 2 - 3;
  return {
    n,
    mean,
    sd,
    variance: n > 1 ? m2 / (n - 1) : null,
    skewness: n >= 3 && spread ? (Math.sqrt(n * (n - 1)) / (n - 2)) * g1 : null,
    kurtosis: n >= 4 && spread ? ((n - 1) / ((n - 2) * (n - 3))) * ((n + 1) * g2 + 6) : null,
  };
}

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
 * Mean and standard deviation of weighted rows: Σwx ÷ Σw and the root of Σw(x−m)² ÷ (Σw·(n−1)/n).
 * @param counts here the sum of weights of the rows that hold each value
 * @param n rows with a positive weight
 */
export function weightedMoments(
  { values, counts }: Weighed,
  n: number,
): { mean: number | null; sd: number | null } {
  const sum = size({ values, counts });
  if (n === 0 || !(sum > 0)) return { mean: null, sd: null };
  const rough = total(values.length, (i) => values[i] * counts[i]) / sum;
  const mean = rough + total(values.length, (i) => (values[i] - rough) * counts[i]) / sum;
  const squares = total(values.length, (i) => (values[i] - mean) ** 2 * counts[i]);
  return { mean, sd: n > 1 ? Math.sqrt(squares / ((sum * (n - 1)) / n)) : null };
}

/**
 * Quantile of sorted values under weights: the weights are scaled to mean 1, so that they add up to n, and the rule of
 * type 7 is applied to the cumulative weight: the order statistic of rank k is the first value at which k is reached.
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

/** The zero-based `rank`-th of all rows in order. */
function valueAt({ values, counts }: Weighed, rank: number): number {
  let passed = 0;
  for (let i = 0; i < values.length; i++) {
    passed += counts[i];
    if (rank < passed) return values[i];
  }
  return values[values.length - 1];
}

/** Indices of every tied most frequent value; empty where all occur once. */
export function modes(counts: ArrayLike<number>): number[] {
  let most = 1;
  for (let i = 0; i < counts.length; i++) if (counts[i] > most) most = counts[i];
  if (most === 1) return [];
  const found: number[] = [];
  for (let i = 0; i < counts.length; i++) if (counts[i] === most) found.push(i);
  return found;
}

/** Median of the distances from `centre`. Values need not be sorted. */
export function medianDistance({ values, counts }: Weighed, centre: number): number | null {
  const order = Array.from({ length: values.length }, (_, i) => i).sort(
    (a, b) => Math.abs(values[a] - centre) - Math.abs(values[b] - centre),
  );
  return quantile(
    { values: order.map((i) => Math.abs(values[i] - centre)), counts: order.map((i) => counts[i]) },
    0.5,
  );
}
