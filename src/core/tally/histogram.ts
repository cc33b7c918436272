import { quantile } from './quantile';
import { size, type Weighed } from './weighed';

/** Bars of equal width that together hold every value: bar i covers [start + i·width, start + (i+1)·width), the last closed. */
export interface Histogram {
  start: number;
  width: number;
  counts: number[];
}

const MOST_BINS = 60;
/** Beyond this, sums and products of edges are no numbers any more. */
const EXTREME = 1e300;
const ROUND = [1, 2, 2.5, 5, 10];

/** The smallest round number (1, 2, 2.5, 5 × 10ᵏ) not below `width`; with `whole`, a whole one. */
export function roundWidth(width: number, whole: boolean): number {
  const power = 10 ** Math.floor(Math.log10(width));
  const found = ROUND.map((step) => step * power).find((step) => step >= width * (1 - 1e-9)) ?? 10 * power;
  return whole ? Math.max(1, Math.ceil(found)) : found;
}

/**
 * Histogram of sorted values: the width of Freedman & Diaconis (1981), 2·IQR·n^(−1/3), moved to a round number, at most
 * 60 bins; whole-number values get edges at whole numbers.
 * @param wished a width that a person chose; taken as it is unless it makes more than ten times as many bins
 * @returns `null` without values, and for values that lie at the ends of what a double holds
 */
export function histogram(sorted: Weighed, whole: boolean, wished: number | null = null): Histogram | null {
  const n = size(sorted);
  if (n === 0) return null;
  const low = sorted.values[0];
  const high = sorted.values[sorted.values.length - 1];
  const spread = high - low;
  // At the ends of what a double holds neither bins nor a chart's own axis can be worked out.
  if (Math.max(-low, high, spread) > EXTREME || (spread > 0 && spread < 1 / EXTREME)) return null;
  if (spread === 0) return { start: low, width: whole ? 1 : Math.max(Math.abs(low), 1) / 10, counts: [n] };
  const iqr = (quantile(sorted, 0.75) as number) - (quantile(sorted, 0.25) as number);
  // Without a spread in the middle half, Sturges' number of bins stands in.
  const wish = iqr > 0 ? (2 * iqr) / Math.cbrt(n) : spread / (Math.log2(n) + 1);
  let width = roundWidth(Math.max(wish, spread / MOST_BINS), whole);
  let start = Math.floor(low / width) * width;
  if (wished !== null && wished > 0 && spread / wished <= MOST_BINS * 10) {
    width = wished;
    start = Math.floor(low / width) * width;
  } else
    while (binsFrom(start, width, high) > MOST_BINS) {
      width = roundWidth(width * 1.01, whole);
      start = Math.floor(low / width) * width;
    }
  const counts = new Array<number>(binsFrom(start, width, high)).fill(0);
  for (let i = 0; i < sorted.values.length; i++) {
    const bin = Math.min(counts.length - 1, Math.floor((sorted.values[i] - start) / width + 1e-9));
    counts[bin] += sorted.counts[i];
  }
  return { start, width, counts };
}

/** Rows that lie too far out to be drawn with the rest, on one side. */
export interface Side {
  rows: number;
  from: number;
  to: number;
}
export interface Beyond {
  below: Side | null;
  above: Side | null;
}

const LEAST_ROWS = 30;
/** What may be left out: so many rows of a hundred on either side, further from the middle 95 of a hundred than so many times their range. */
const MOST_BEYOND = 0.05;
const FAR = 4;
/** Where all is drawn unless the middle would get less than one part in so many of the axis. */
const SQUASHED = 8;

/** The values that are drawn, where a few far ones would squash all others into a bar or two. */
export function drawable(sorted: Weighed): { body: Weighed; beyond: Beyond | null } {
  const n = size(sorted);
  const { values, counts } = sorted;
  const [low, high] = [quantile(sorted, 0.025), quantile(sorted, 0.975)];
  if (n < LEAST_ROWS || low === null || high === null) return { body: sorted, beyond: null };
  const range = high - low;
  if (range <= 0 || values[values.length - 1] - values[0] <= range * SQUASHED)
    return { body: sorted, beyond: null };
  let [from, to] = [0, values.length];
  while (values[from] < low - range * FAR) from++;
  while (values[to - 1] > high + range * FAR) to--;
  const side = (first: number, end: number): Side | null => {
    if (first >= end) return null;
    let rows = 0;
    for (let i = first; i < end; i++) rows += counts[i];
    return { rows, from: values[first], to: values[end - 1] };
  };
  const beyond = { below: side(0, from), above: side(to, values.length) };
  const left = (beyond.below?.rows ?? 0) + (beyond.above?.rows ?? 0);
  if (left === 0 || left > n * MOST_BEYOND) return { body: sorted, beyond: null };
  return {
    body: {
      values: Array.prototype.slice.call(values, from, to) as number[],
      counts: Array.prototype.slice.call(counts, from, to) as number[],
    },
    beyond,
  };
}

const binsFrom = (start: number, width: number, high: number): number =>
  Math.floor((high - start) / width + 1e-9) + 1;
