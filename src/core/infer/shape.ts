import { countsIn, valuesIn, type LevelList } from './level-list';
import { numberAt, rowsOf } from './levels';

/** What all numbers are multiples of, if it is five or more; else 0. */
export function commonStep(valid: LevelList): number {
  const values = valuesIn(valid);
  if (!values.every(Number.isInteger)) return 0;
  const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));
  let common = 0;
  for (let i = 0; i < values.length && common !== 1; i++) common = divisor(Math.abs(values[i]), common);
  return common >= LEAST_STEP ? common : 0;
}
const LEAST_STEP = 5;

/** The step of a quantity that was rounded to it, with hardly a value left out; 0 where there is none. */
export function roundedTo(valid: LevelList): number {
  const step = commonStep(valid);
  if (step === 0 || (numberAt(valid, valid.length - 1) - numberAt(valid, 0)) / step + 1 > valid.length * 1.4)
    return 0;
  // Codes in tens go up and down; a quantity rises to a peak and falls.
  return shapeOf(valid, rowsOf(valid)).turns <= Math.max(1, valid.length / 8) ? step : 0;
}

/** Whether the first and the last of a numbering hold as many rows as others: a quantity runs out. */
export function fullEnds(valid: LevelList): boolean {
  const usual = rowsOf(valid) / valid.length;
  const counts = countsIn(valid);
  return counts[0] > usual * 0.4 && counts[counts.length - 1] > usual * 0.4;
}

const LEAST_ANSWERS = 7;
/** Multiples of five whose steps grow with their size: 5, 10, 15, 20, 30, 45, 60, 90, 120, 180. */
export function answersInMinutes(valid: LevelList): boolean {
  const values = valuesIn(valid);
  if (valid.length < LEAST_ANSWERS || shareOfFives(valid) < 0.95 || values.every((value) => value % 10 === 0))
    return false;
  const steps = Array.from(values.subarray(1), (value, i) => value - values[i]);
  const half = steps.length >> 1;
  const middle = (some: readonly number[]): number => [...some].sort((a, b) => a - b)[some.length >> 1];
  return middle(steps.slice(half)) >= 2 * middle(steps.slice(0, half));
}

/** Whether each value stands in as many rows as the others, as lots of one size do. */
export function isEven(valid: LevelList): boolean {
  const counts = countsIn(valid).slice().sort();
  // The last of them may be cut short.
  return counts[counts.length - 1] - counts[1] <= Math.max(1, counts[counts.length - 1] * 0.04);
}

/** Share of rows that hold a multiple of five. */
export function shareOfFives(valid: LevelList): number {
  const [values, counts] = [valuesIn(valid), countsIn(valid)];
  let fives = 0;
  for (let i = 0; i < values.length; i++) if (values[i] % 5 === 0) fives += counts[i];
  return fives / Math.max(1, rowsOf(valid));
}

/** Share of some rows that hold zero. */
export const shareOfZeros = (body: LevelList, rows: number): number =>
  (countsIn(body)[valuesIn(body).indexOf(0)] ?? 0) / Math.max(1, rows);

/** The median of the rows that do not hold zero, as a distance from it; at least 1. */
export function middleBeyondZero(body: LevelList, rows: number): number {
  const half = (rows - shareOfZeros(body, rows) * rows) / 2;
  const [values, counts] = [valuesIn(body), countsIn(body)];
  let seen = 0;
  for (let i = 0; i < values.length; i++)
    if (values[i] !== 0 && (seen += counts[i]) >= half) return Math.max(1, Math.abs(values[i]));
  return 1;
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
export function shapeOf(valid: LevelList, rows: number): Shape {
  const [values, counts] = [valuesIn(valid), countsIn(valid)];
  // A gap counts where something more than a few rows lies beyond it.
  const lastMassive = counts.findLastIndex((count) => count > rows * THIN * 2);
  let gaps = false;
  for (let i = 1; i <= lastMassive && !gaps; i++) {
    const missing = values[i] - values[i - 1] - 1;
    // After zero, which stands for none, the first may come late.
    gaps =
      missing > 0 &&
      !(i === 1 && values[0] === 0 && valid.length > LATE) &&
      missing * Math.sqrt(counts[i] * counts[i - 1]) > Math.max(LEAST_MISSING, rows * THIN);
  }
  let turns = 0;
  let direction = 0;
  let peak = 0;
  for (let i = 1; i < counts.length; i++) {
    if (counts[i] > counts[peak]) peak = i;
    const change = counts[i] - counts[i - 1];
    // Two standard deviations of the difference of two counts.
    if (Math.abs(change) <= 2 * Math.sqrt(counts[i] + counts[i - 1])) continue;
    if (direction !== 0 && Math.sign(change) !== direction) turns++;
    direction = Math.sign(change);
  }
  const [low, high] = [values[0], values[values.length - 1]];
  const lower = values[peak] - low <= (high - low) * 0.37;
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
export function falling(valid: LevelList): boolean {
  const [values, counts] = [valuesIn(valid), countsIn(valid)];
  const middle = (values[0] + values[values.length - 1]) / 2;
  let lower = 0;
  for (let i = 0; i < values.length; i++) if (values[i] <= middle) lower += counts[i];
  return values[0] <= 1 && lower > rowsOf(valid) * 0.8;
}
