import { numberOf, rowsOf, type Level } from './levels';

/** What all numbers are multiples of, if it is five or more; else 0. */
export function commonStep(valid: readonly Level[]): number {
  if (!valid.every(({ value }) => Number.isInteger(value))) return 0;
  const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));
  const common = valid.reduce(
    (found, level) => (found === 1 ? 1 : divisor(Math.abs(numberOf(level)), found)),
    0,
  );
  return common >= LEAST_STEP ? common : 0;
}
const LEAST_STEP = 5;

/** The step of a quantity that was rounded to it, with hardly a value left out; 0 where there is none. */
export function roundedTo(valid: readonly Level[]): number {
  const step = commonStep(valid);
  if (step === 0 || (numberOf(valid[valid.length - 1]) - numberOf(valid[0])) / step + 1 > valid.length * 1.4)
    return 0;
  // Codes in tens go up and down; a quantity rises to a peak and falls.
  return shapeOf(valid, rowsOf(valid)).turns <= Math.max(1, valid.length / 8) ? step : 0;
}

/** Whether the first and the last of a numbering hold as many rows as others: a quantity runs out. */
export function fullEnds(valid: readonly Level[]): boolean {
  const usual = rowsOf(valid) / valid.length;
  return valid[0].count > usual * 0.4 && valid[valid.length - 1].count > usual * 0.4;
}

const LEAST_ANSWERS = 7;
/** Multiples of five whose steps grow with their size: 5, 10, 15, 20, 30, 45, 60, 90, 120, 180. */
export function answersInMinutes(valid: readonly Level[]): boolean {
  if (
    valid.length < LEAST_ANSWERS ||
    shareOfFives(valid) < 0.95 ||
    valid.every(({ value }) => (value as number) % 10 === 0)
  )
    return false;
  const steps = valid.slice(1).map(({ value }, i) => (value as number) - numberOf(valid[i]));
  const half = steps.length >> 1;
  const middle = (some: readonly number[]): number => [...some].sort((a, b) => a - b)[some.length >> 1];
  return middle(steps.slice(half)) >= 2 * middle(steps.slice(0, half));
}

/** Whether each value stands in as many rows as the others, as lots of one size do. */
export function isEven(valid: readonly Level[]): boolean {
  const counts = valid.map(({ count }) => count).sort((a, b) => a - b);
  // The last of them may be cut short.
  return counts[counts.length - 1] - counts[1] <= Math.max(1, counts[counts.length - 1] * 0.04);
}

/** Share of rows that hold a multiple of five. */
export function shareOfFives(valid: readonly Level[]): number {
  return (
    valid.reduce((sum, { value, count }) => ((value as number) % 5 === 0 ? sum + count : sum), 0) /
    Math.max(1, rowsOf(valid))
  );
}

export interface Shape {
  /** Values are missing between frequent ones: not merely where the large ones run out. */
  gaps: boolean;
  /** How often the frequencies change from rising to falling or back by more than chance makes them. */
  turns: number;
  /** One peak in the lower part, and ever fewer of the larger values, down to hardly any. */
  runsOut: boolean;
  /** One peak between two ends that hold hardly any. */
  bell: boolean;
}

const THIN = 0.01;
/** Rows that must be missing from a gap. */
const LEAST_MISSING = 8;
const LATE = 12;
/** @param valid levels that are numbers, ascending */
export function shapeOf(valid: readonly Level[], rows: number): Shape {
  const counts = valid.map(({ count }) => count);
  // A gap counts where something more than a few rows lies beyond it.
  const lastMassive = counts.findLastIndex((count) => count > rows * THIN * 2);
  const gaps = valid.some(({ value, count }, i) => {
    const missing = i > 0 ? (value as number) - numberOf(valid[i - 1]) - 1 : 0;
    // After zero, which stands for none, the first may come late.
    return (
      missing > 0 &&
      i <= lastMassive &&
      !(i === 1 && valid[0].value === 0 && valid.length > LATE) &&
      missing * Math.sqrt(count * counts[i - 1]) > Math.max(LEAST_MISSING, rows * THIN)
    );
  });
  let turns = 0;
  let direction = 0;
  for (let i = 1; i < counts.length; i++) {
    const change = counts[i] - counts[i - 1];
    // Two standard deviations of the difference of two counts.
    if (Math.abs(change) <= 2 * Math.sqrt(counts[i] + counts[i - 1])) continue;
    if (direction !== 0 && Math.sign(change) !== direction) turns++;
    direction = Math.sign(change);
  }
  const peak = counts.reduce((best, count, i) => (count > counts[best] ? i : best), 0);
  const low = numberOf(valid[0]);
  const high = numberOf(valid[valid.length - 1]);
  const lower = numberOf(valid[peak]) - low <= (high - low) * 0.37;
  const thin = (count: number): boolean => count * 10 <= counts[peak];
  return {
    gaps,
    turns,
    bell: turns <= 1 && thin(counts[0]) && thin(counts[counts.length - 1]),
    runsOut:
      valid.length >= 4 &&
      turns <= 1 &&
      lower &&
      counts[counts.length - 1] <= rows * 0.025 &&
      counts[counts.length - 1] < counts[peak] / 8,
  };
}

/** Whether the lower half of the range holds most rows and the first values are the most frequent. */
export function falling(valid: readonly Level[]): boolean {
  const rows = rowsOf(valid);
  const middle = (numberOf(valid[0]) + numberOf(valid[valid.length - 1])) / 2;
  let lower = 0;
  for (const { value, count } of valid) if ((value as number) <= middle) lower += count;
  return numberOf(valid[0]) <= 1 && lower > rows * 0.8;
}
