import { largest } from './extent';
import { Weighed } from './weighed';

/** A stem display: each line a stem with its leaves; extremes apart. Tukey, Exploratory Data Analysis (1977), ch. 1. */
export interface StemDisplay {
  /** What a leaf of 1 stands for. */
  leafUnit: number;
  /** Values that one printed leaf stands for, where there are too many to print each. */
  perLeaf: number;
  lines: { stem: string; leaves: string; count: number; depth: number }[];
  low: number[];
  high: number[];
}

const MOST_LINES = 20;
const MOST_LEAVES = 50;
const FENCE = 3;
const DIGITS: readonly number[] = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9];

/**
 * @param sorted values ascending with their counts
 * @param quartiles beyond three interquartile ranges of which values are listed apart
 * @returns `null` without values or without spread
 */
export function stemDisplay(sorted: Weighed, [q1, q3]: readonly [number, number]): StemDisplay | null {
  const { values, counts } = sorted;
  const length = values.length;
  if (length === 0 || values[0] === values[length - 1]) return null;
  const reach = FENCE * (q3 - q1);
  const [lowest, highest] = reach > 0 ? [q1 - reach, q3 + reach] : [-Infinity, Infinity];
  let first = 0;
  let last = length - 1;
  while (first < length && values[first] < lowest) first++;
  while (last >= first && values[last] > highest) last--;
  if (last < first) return null;
  const apart = (from: number, to: number): number[] =>
    Array.from({ length: to - from }, (_, i) => values[from + i]);
  const spread = values[last] - values[first] || 1;
  // A stem is ten leaves; as fine as the lines allow.
  let power = Math.floor(Math.log10(spread / MOST_LINES));
  while (spread / 10 ** (power + 1) > MOST_LINES) power++;
  const leafUnit = 10 ** power;
  // Digits are cut off towards zero, so that below zero a stem is what stands before the leaf: −34 is −3 | 4, and −4 is −0 | 4.
  const leafOf = (value: number): number => Math.floor(Math.abs(value) / leafUnit + 1e-9);
  const lineOf = (value: number): number => {
    const stem = Math.floor(leafOf(value) / 10);
    return value < 0 ? -1 - stem : stem;
  };
  const lowest10 = lineOf(values[first]);
  // For each stem the rows of each of its ten leaves.
  const stems = Array.from({ length: lineOf(values[last]) - lowest10 + 1 }, () => new Float64Array(10));
  for (let i = first; i <= last; i++) {
    stems[lineOf(values[i]) - lowest10][leafOf(values[i]) % 10] += counts[i];
  }
  const rows = stems.map((leaves) => leaves.reduce((sum, count) => sum + count, 0));
  const all = rows.reduce((sum, count) => sum + count, 0);
  const perLeaf = Math.max(1, Math.ceil(largest(rows) / MOST_LEAVES));
  let below = 0;
  const lines = stems.map((leaves, i) => {
    const line = lowest10 + i;
    const stem = line < 0 ? `-${-1 - line}` : String(line);
    const count = rows[i];
    let seen = 0;
    let text = '';
    // Values ascend: below zero the larger leaf is the lower value.
    const order = line < 0 ? DIGITS.toReversed() : DIGITS;
    order.forEach((leaf) => {
      const times = leaves[leaf];
      const before = Math.floor(seen / perLeaf);
      seen += times;
      text += String(leaf).repeat(Math.floor(seen / perLeaf) - before);
    });
    if (text === '' && count > 0) text = '·';
    const from = below;
    below += count;
    return { stem, leaves: text, count, depth: Math.min(below, all - from) };
  });
  return { leafUnit, perLeaf, lines, low: apart(0, first), high: apart(last + 1, length) };
}
