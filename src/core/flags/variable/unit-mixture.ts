import { smallest } from '../../tally/extent';
import { isMeasure, isNumericStorage } from '../../extract/words';
import { bodySpan } from '../../infer/edges';
import { validOf } from '../../infer/levels';
import { round2, rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/**
 * Two clusters of positive values a known factor apart, of like shape, with nothing between: metres among kilometres,
 * pence among pounds, thousands among ones.
 */
export const unitMixture: VariableRule = {
  rule: 'unit-mixture',
  needs: 'tally',
  answers: 'whole',
  precedence: 80,
  explains: ['far-out-value', 'sentinel-code', 'top-code', 'out-of-range'],
  look,
};

const FACTORS: readonly (readonly [number, string])[] = [
  [1000, 'a thousand, as metres and kilometres or ones and thousands'],
  [100, 'a hundred, as centimetres and metres or pence and pounds'],
  [10, 'ten, as millimetres and centimetres'],
  [60, 'sixty, as minutes and hours'],
  [12, 'twelve, as months and years'],
  [24, '24, as hours and days'],
  [2.2046, '2.2, as pounds and kilograms'],
  [2.54, '2.54, as centimetres and inches'],
  [3.2808, '3.28, as feet and metres'],
  [1.6093, '1.61, as kilometres and miles'],
];
const LEAST_ROWS = 40;
const LEAST_SHARE = 0.005;
/** The empty stretch between the clusters, in powers of ten, and in steps of the values within them. */
const LEAST_GAP = 0.12;
const NEAR = 0.12;

/** Units of which people use two, by the words that name what is measured; their clusters may touch. */
const BY_WORDS: readonly (readonly [RegExp, number, string])[] = [
  [/\b(weight|mass|kg|kilo\w*|lbs?|pounds)\b/i, 2.2046, 'pounds and kilograms'],
  [/\b(height|length|stature|width|cm|centimet\w+|inch\w*)\b/i, 2.54, 'centimetres and inches'],
  [/\b(height|altitude|elevation|depth|feet|foot|met(re|er)s?)\b/i, 3.2808, 'feet and metres'],
  [/\b(distance|km|kilomet\w+|miles?)\b/i, 1.6093, 'kilometres and miles'],
];
/** Clusters that touch must be narrower than the step between them by so much, and leave a hollow between. */
const NARROW = 2.8;
const HOLLOW = 0.55;
/** Where the hollow may lie: the nearer to the smaller cluster, the smaller that is. */
const BETWEEN = [0.4, 0.5, 0.6, 0.65, 0.7, 0.75];
const LEAST_OTHER = 15;
const ROUNDS = 40;

/** Two units whose clusters touch: a normal body on the logarithm, and the same body again one known factor up. */
function touching({ name, label, entry }: Subject, values: Float64Array, heldBy: Float64Array): Flag[] {
  const words = `${label ?? ''} ${entry?.units ?? ''} ${name.replace(/[_.\d]+/g, ' ')}`;
  if (!BY_WORDS.some(([pattern]) => pattern.test(words))) return [];
  const { logs, counts } = stretches(values, heldBy);
  const rows = counts.reduce((sum, count) => sum + count, 0);
  const near = (at: number, reach: number): number =>
    logs.reduce((sum, log, i) => (Math.abs(log - at) <= reach ? sum + counts[i] : sum), 0);
  for (const [pattern, factor, units] of BY_WORDS) {
    if (!pattern.test(words)) continue;
    const step = Math.log(factor);
    for (const start of [0.1, 0.9]) {
      const { mean, sd, upper } = fitted(logs, counts, step, start);
      const fewer = Math.round(Math.min(upper, 1 - upper) * rows);
      if (fewer < Math.max(LEAST_OTHER, rows * 0.01) || sd > step / NARROW || sd === 0) continue;
      const reach = step * 0.12;
      const other = upper < 0.5 ? mean + step : mean;
      const between = BETWEEN.map((part) =>
        near(upper < 0.5 ? mean + step * part : mean + step * (1 - part), reach),
      );
      if (smallest(between) > near(other, reach) * HOLLOW) continue;
      const [low, high] = [Math.exp(mean), Math.exp(mean + step)].map((x) => Number(x.toPrecision(3)));
      return [
        {
          rule: 'unit-mixture',
          variables: [name],
          codes: [],
          rows: fewer,
          severity: 'high',
          certainty: 0.85,
          says: `about ${rowsHold(fewer).replace(/ holds?$/, '')} lie around ${upper < 0.5 ? high : low}, the others around ${upper < 0.5 ? low : high}: two clusters of the same shape a factor ${factor.toFixed(2)} apart, as ${units}`,
        },
      ];
    }
  }
  return [];
}

/** Logarithms of values with their counts; of very many values, the middles of so many stretches. */
const MOST_STRETCHES = 800;
function stretches(values: Float64Array, counts: Float64Array): { logs: Float64Array; counts: Float64Array } {
  if (values.length <= MOST_STRETCHES) return { logs: values.map(Math.log), counts };
  const low = Math.log(values[0]);
  const width = (Math.log(values[values.length - 1]) - low) / MOST_STRETCHES;
  const held = new Float64Array(MOST_STRETCHES);
  for (let i = 0; i < values.length; i++)
    held[Math.min(MOST_STRETCHES - 1, Math.floor((Math.log(values[i]) - low) / width))] += counts[i];
  return { logs: held.map((_, i) => low + (i + 0.5) * width), counts: held };
}

/** Mean and spread of a normal body, and the share of rows in the same body one step up, by expectation and maximisation (Dempster, Laird & Rubin 1977). */
function fitted(
  logs: Float64Array,
  counts: Float64Array,
  step: number,
  start: number,
): { mean: number; sd: number; upper: number } {
  const rows = counts.reduce((sum, count) => sum + count, 0);
  let upper = start;
  let mean = logs.reduce((sum, log, i) => sum + log * counts[i], 0) / rows - step * upper;
  let sd = step / 4;
  for (let round = 0; round < ROUNDS; round++) {
    let [inUpper, sum, squares] = [0, 0, 0];
    const of = new Float64Array(logs.length);
    for (let i = 0; i < logs.length; i++) {
      const [low, high] = [logs[i] - mean, logs[i] - mean - step].map((x) =>
        Math.exp(-(x * x) / (2 * sd * sd)),
      );
      of[i] =
        upper * high + (1 - upper) * low > 0
          ? (upper * high) / (upper * high + (1 - upper) * low)
          : logs[i] > mean + step / 2
            ? 1
            : 0;
      inUpper += of[i] * counts[i];
      sum += (logs[i] - of[i] * step) * counts[i];
    }
    mean = sum / rows;
    for (let i = 0; i < logs.length; i++)
      squares += counts[i] * ((1 - of[i]) * (logs[i] - mean) ** 2 + of[i] * (logs[i] - mean - step) ** 2);
    sd = Math.sqrt(squares / rows);
    upper = inUpper / rows;
    if (sd === 0) break;
  }
  return { mean, sd, upper };
}

function look(subject: Subject): Flag[] {
  const { name, kind, role, written, levels } = subject;
  if (!isMeasure(kind) || !isNumericStorage(written.storage) || role !== 'analysis') return [];
  const valid = validOf(levels);
  if (valid.values.length !== valid.levels.length || !valid.ascending) return [];
  // Codes for no answer that stand far out are no second unit.
  const [, end] = bodySpan(valid.levels);
  const from = valid.values.findIndex((value) => value > 0);
  if (from < 0) return [];
  const [values, counts] = [valid.values.subarray(from, end), valid.counts.subarray(from, end)];
  const rows = counts.reduce((sum, count) => sum + count, 0);
  if (rows < LEAST_ROWS || values.length < 12) return [];
  const close = touching(subject, values, counts);
  if (close.length) return close;
  // Without a wide empty stretch there are no clusters, and most quantities have none.
  let widest = 0;
  for (let i = 4; i < values.length - 5; i++) widest = Math.max(widest, values[i + 1] / values[i]);
  if (widest < 10 ** LEAST_GAP) return [];
  const logs = values.map(Math.log10);
  // The widest empty stretch that leaves enough on both sides.
  let below = 0;
  let best: { i: number; gap: number; below: number } | null = null;
  for (let i = 0; i < values.length - 1; i++) {
    below += counts[i];
    const gap = logs[i + 1] - logs[i];
    if (
      below >= rows * LEAST_SHARE &&
      rows - below >= rows * LEAST_SHARE &&
      i >= 4 &&
      values.length - 2 - i >= 4 &&
      (!best || gap > best.gap)
    )
      best = { i, gap, below };
  }
  if (!best || best.gap < LEAST_GAP) return [];
  const low = cluster(logs.subarray(0, best.i + 1), counts.subarray(0, best.i + 1));
  const high = cluster(logs.subarray(best.i + 1), counts.subarray(best.i + 1));
  const apart = 10 ** (high.middle - low.middle);
  const factor = FACTORS.find(
    ([known]) =>
      Math.abs(Math.log10(apart / known)) < Math.log10(1 + NEAR) + 0.35 * Math.min(low.spread, high.spread),
  );
  // Clusters of quite another shape are two groups of people, not one thing in two units.
  if (
    !factor ||
    low.spread === 0 ||
    high.spread === 0 ||
    Math.max(low.spread, high.spread) > 2.2 * Math.min(low.spread, high.spread)
  )
    return [];
  if (best.gap < Math.max(stepOf(logs.subarray(0, best.i + 1)), stepOf(logs.subarray(best.i + 1))) * 2)
    return [];
  const fewer = Math.min(best.below, rows - best.below);
  return [
    {
      rule: 'unit-mixture',
      variables: [name],
      codes: [],
      rows: fewer,
      severity: 'high',
      certainty: round2(best.gap > 0.5 ? 0.92 : 0.8),
      says: `${rowsHold(fewer)} values ${best.below < rows - best.below ? `up to ${values[best.i]}` : `from ${values[best.i + 1]}`}, the others ${best.below < rows - best.below ? `from ${values[best.i + 1]}` : `up to ${values[best.i]}`}: two clusters of like shape about ${factor[1]}`,
    },
  ];
}

function cluster(logs: Float64Array, counts: Float64Array): { middle: number; spread: number } {
  const rows = counts.reduce((sum, count) => sum + count, 0);
  const at = (part: number): number => {
    let below = 0;
    for (let i = 0; i < logs.length; i++) if ((below += counts[i]) >= rows * part) return logs[i];
    return logs[logs.length - 1];
  };
  return { middle: at(0.5), spread: (at(0.84) - at(0.16)) / 2 };
}

/** A wide step from one value to the next, as there are some within a cluster. */
function stepOf(logs: Float64Array): number {
  let step = 0;
  for (let i = 1; i < logs.length; i++) step = Math.max(step, logs[i] - logs[i - 1]);
  // The widest step within may be one stray value; a usual wide one tells more.
  const steps = new Float64Array(Math.max(0, logs.length - 1));
  for (let i = 0; i < steps.length; i++) steps[i] = logs[i + 1] - logs[i];
  steps.sort();
  return Math.min(step, (steps[Math.floor(steps.length * 0.9)] ?? step) * 2);
}
