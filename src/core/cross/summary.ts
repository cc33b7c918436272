import type { Valued } from '../rows/counting';
import { moments } from '../tally/moments';
import { quantile } from '../tally/quantile';
import { weightedMoments } from '../tally/weighted-moments';
import { weightedQuantile } from '../tally/weighted-quantile';

/** A measure in a cell. */
export interface Summary {
  /** Rows with a valid value, of a positive weight where there are weights. */
  n: number;
  mean: number | null;
  sd: number | null;
  min: number | null;
  q1: number | null;
  median: number | null;
  q3: number | null;
  max: number | null;
}

/** @param parts cells that are summarised together @param weighted whether weights are more than ones */
export function summaryOf(parts: readonly Valued[], weighted: boolean): Summary {
  const { values, rows, weights } = together(parts);
  const n = rows.reduce((all, one) => all + one, 0);
  if (n === 0) return { n, mean: null, sd: null, min: null, q1: null, median: null, q3: null, max: null };
  const all = { values, counts: weighted ? weights : rows };
  const { mean, sd } = weighted ? weightedMoments(all, n) : moments(all);
  const [q1, median, q3] = [0.25, 0.5, 0.75].map((p) =>
    weighted ? weightedQuantile(all, n, p) : quantile(all, p),
  );
  return { n, mean, sd, min: values[0], q1, median, q3, max: values[values.length - 1] };
}

/** Values of several cells as those of one. */
function together(parts: readonly Valued[]): Valued {
  const held = parts.filter(({ values }) => values.length > 0);
  if (held.length === 1) return held[0];
  const all = new Float64Array(held.reduce((sum, { values }) => sum + values.length, 0));
  let at = 0;
  for (const { values } of held) {
    all.set(values, at);
    at += values.length;
  }
  const values = all.sort().filter((value, i) => i === 0 || value !== all[i - 1]);
  const [rows, weights] = [new Float64Array(values.length), new Float64Array(values.length)];
  for (const part of held) {
    // Both rise: the place of the next value lies ahead.
    let place = 0;
    for (let i = 0; i < part.values.length; i++) {
      while (values[place] < part.values[i]) place++;
      rows[place] += part.rows[i];
      weights[place] += part.weights[i];
    }
  }
  return { values, rows, weights };
}

/** Share of a measure's variance that lies between groups, η²; `null` without spread or rows. */
export function etaSquared(groups: readonly Valued[]): number | null {
  let [weight, sum] = [0, 0];
  const each = groups.map(({ values, weights }) => {
    let [w, s] = [0, 0];
    for (let i = 0; i < values.length; i++) {
      w += weights[i];
      s += weights[i] * values[i];
    }
    weight += w;
    sum += s;
    return { w, mean: w > 0 ? s / w : 0 };
  });
  if (!(weight > 0)) return null;
  const mean = sum / weight;
  let [between, all] = [0, 0];
  groups.forEach(({ values, weights }, g) => {
    between += each[g].w * (each[g].mean - mean) ** 2;
    for (let i = 0; i < values.length; i++) all += weights[i] * (values[i] - mean) ** 2;
  });
  return all > 0 ? Math.min(1, between / all) : null;
}
