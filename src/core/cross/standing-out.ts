/** Adjusted residuals beyond this are no chance: a cell stands out. */
export const BEYOND = 3;
/** Sums of doubles miss what they come to by this little: a residual of 3 is not beyond 3. */
const ROUNDING = 1e-9;
export const standsOutBy = (residual: number | null): residual is number =>
  residual !== null && Math.abs(residual) > BEYOND + ROUNDING;

/** What a table of two variables says of how they hang together. */
interface Association {
  /** Pearson's chi-square; `null` where there is no row. */
  chiSquare: number | null;
  degreesOfFreedom: number;
  /** Cramér's V (Cramér 1946), √(χ² ÷ (n·(min(lines, columns) − 1))); `null` where undefined. */
  cramersV: number | null;
  /** For each cell, line by line, what the margins lead one to expect; `null` where there is no row. */
  expected: (number | null)[];
  /** Adjusted residuals, (o − e) ÷ √(e·(1 − r/n)·(1 − c/n)) (Haberman 1973, Biometrics 29); `null` where undefined. */
  residuals: (number | null)[];
}

/**
 * From sums of weights, scaled to mean 1 over the rows of positive weight, so that weighting pretends no more rows than there
 * are. Lines and columns without such a row count in no degree of freedom.
 * @param sums cells line by line @param n rows of positive weight
 */
export function associationOf(
  sums: ArrayLike<number>,
  lines: number,
  columns: number,
  n: number,
): Association {
  const total = Array.from(sums).reduce((all, one) => all + one, 0);
  if (n === 0 || !(total > 0)) {
    const none = Array.from({ length: lines * columns }, () => null);
    return { chiSquare: null, degreesOfFreedom: 0, cramersV: null, expected: none, residuals: none };
  }
  const scale = n / total;
  const line = new Float64Array(lines);
  const column = new Float64Array(columns);
  for (let i = 0; i < lines; i++)
    for (let j = 0; j < columns; j++) {
      line[i] += sums[i * columns + j] * scale;
      column[j] += sums[i * columns + j] * scale;
    }
  const expected: number[] = [];
  const residuals: (number | null)[] = [];
  let chiSquare = 0;
  for (let i = 0; i < lines; i++)
    for (let j = 0; j < columns; j++) {
      const observed = sums[i * columns + j] * scale;
      const e = (line[i] * column[j]) / n;
      expected.push(e);
      if (e > 0) chiSquare += (observed - e) ** 2 / e;
      const spread = e * (1 - line[i] / n) * (1 - column[j] / n);
      // Margins that hold all rows leave nothing but rounding.
      residuals.push(spread > e * 1e-12 ? (observed - e) / Math.sqrt(spread) : null);
    }
  const held = (margin: Float64Array): number => margin.filter((one) => one > 0).length;
  const [r, c] = [held(line), held(column)];
  const least = Math.min(r, c) - 1;
  return {
    // One line or one column is what its margin says: nothing is left but rounding.
    chiSquare: least > 0 ? chiSquare : 0,
    degreesOfFreedom: Math.max(0, (r - 1) * (c - 1)),
    cramersV: least > 0 ? Math.sqrt(chiSquare / (n * least)) : null,
    expected,
    residuals,
  };
}
