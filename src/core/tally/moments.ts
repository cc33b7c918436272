import { size, sumAbout, type Weighed } from './weighed';

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

/**
 * Mean, standard deviation, variance, skewness and excess kurtosis, in two passes: first the mean, then powers of the
 * distances from it, never the difference of squares (Chan, Golub & LeVeque 1983).
 *
 * Example: 2, 4, 4, 4, 5, 5, 7, 9 → mean 5, variance 32 ÷ 7, sd 2.138…
 */
export function moments({ values, counts }: Weighed): Moments {
  const length = values.length;
  const n = size({ values, counts });
  if (n === 0) return { n, mean: null, sd: null, variance: null, skewness: null, kurtosis: null };
  const rough = sumAbout({ values, counts }, 0) / n;
  const mean = rough + sumAbout({ values, counts }, rough) / n;
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
