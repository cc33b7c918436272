import type { PassedNumbers } from '../extract/extract';
import type { Moments } from './moments';

/**
 * Moments of values that pass by once: sums of powers of the distance from a value near their middle, each compensated (Kahan
 * 1965), so that nothing is lost where the middle is well chosen.
 */
export class RunningMoments {
  private n = 0;
  private min = Infinity;
  private max = -Infinity;
  private readonly sums = new Float64Array(4);
  private readonly lost = new Float64Array(4);

  /** @param middle a value near the mean of those that will come */
  constructor(private readonly middle: number) {}

  /** @param rows that hold the value */
  add(value: number, rows = 1): void {
    this.n += rows;
    if (value < this.min) this.min = value;
    if (value > this.max) this.max = value;
    const distance = value - this.middle;
    let term = rows;
    for (let power = 0; power < 4; power++) {
      term *= distance;
      const y = term - this.lost[power];
      const sum = this.sums[power] + y;
      this.lost[power] = sum - this.sums[power] - y;
      this.sums[power] = sum;
    }
  }

  /** What has passed so far, to go on from. */
  get passed(): PassedNumbers {
    const { n, min, max, middle } = this;
    return { n, min, max, middle, sums: [...this.sums] };
  }

  /** Goes on from what has passed. */
  static after({ n, min, max, middle, sums }: PassedNumbers): RunningMoments {
    const made = new RunningMoments(middle);
    Object.assign(made, { n, min, max });
    made.sums.set(sums);
    return made;
  }

  /** The same after more values. */
  with(values: ArrayLike<number>, rows: ArrayLike<number>): RunningMoments {
    const made = RunningMoments.after(this.passed);
    for (let i = 0; i < values.length; i++) made.add(values[i], rows[i]);
    return made;
  }

  get ended(): { min: number; max: number; moments: Moments } {
    return { min: this.min, max: this.max, moments: this.moments };
  }

  /** As `moments` gives them of all values at once. */
  get moments(): Moments {
    const { n } = this;
    if (n === 0) return { n, mean: null, sd: null, variance: null, skewness: null, kurtosis: null };
    const [a, b, c, d] = Array.from(this.sums, (sum) => sum / n);
    const mean = this.middle + a;
    const m2 = Math.max(0, b - a * a);
    const m3 = c - 3 * a * b + 2 * a ** 3;
    const m4 = d - 4 * a * c + 6 * a * a * b - 3 * a ** 4;
    const spread = m2 > 0 && Math.sqrt(m2) > Math.abs(mean) * 1e-12;
    const variance = n > 1 ? (m2 * n) / (n - 1) : null;
    const g1 = m3 / m2 ** 1.5;
    const g2 = m4 / m2 ** 2 - 3;
    return {
      n,
      mean,
      sd: variance === null ? null : Math.sqrt(variance),
      variance,
      skewness: n >= 3 && spread ? (Math.sqrt(n * (n - 1)) / (n - 2)) * g1 : null,
      kurtosis: n >= 4 && spread ? ((n - 1) / ((n - 2) * (n - 3))) * ((n + 1) * g2 + 6) : null,
    };
  }
}
