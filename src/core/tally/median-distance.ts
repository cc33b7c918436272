import { quantile } from './quantile';
import type { Weighed } from './weighed';

/**
 * Median of the absolute distances from `centre`, such as the median: then it is the MAD (Iglewicz & Hoaglin 1993). Values need
 * not be sorted.
 *
 * Example: 1, 1, 2, 2, 4, 6, 9 around 2 → 1
 */
export function medianDistance({ values, counts }: Weighed, centre: number): number | null {
  const order = Array.from({ length: values.length }, (_, i) => i).sort(
    (a, b) => Math.abs(values[a] - centre) - Math.abs(values[b] - centre),
  );
  return quantile(
    { values: order.map((i) => Math.abs(values[i] - centre)), counts: order.map((i) => counts[i]) },
    0.5,
  );
}
