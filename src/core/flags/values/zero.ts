import { largest, smallest } from '../../tally/extent';
import { isCategorical } from '../../extract/words';
import { NEAREST, stepAt } from '../../infer/edges';
import { countsIn, levelAt, type Level, type LevelList } from '../../infer/level-list';
import { numberOf, rowsOf } from '../../infer/levels';
import type { Subject } from '../rule';

/** A quantity lives far from zero if its smallest value is so many of its ranges above it. */
const FAR_FROM_ZERO = 0.6;
/** So does a narrow one whose mean is so many standard deviations above zero, with a gap of that share of its range, where few hold zero. */
const NARROW = 4.5;
const GAP_TO_ZERO = 0.25;
const FEW_ZEROS = 0.05;
const MANY_ZEROS = 0.1;
const OUT_OF_REACH = 2;

/** Whether zero lies outside what a quantity can be: below all of a wide gap, or of a narrow body far above it. */
export function livesFarFromZero(zero: Level, rest: LevelList): boolean {
  const ends = [numberOf(levelAt(rest, 0)), numberOf(levelAt(rest, rest.length - 1))];
  // Below zero as above it.
  const [low, high] = ends[1] < 0 ? [-ends[1], -ends[0]] : ends;
  // Of two codes of which one is zero, zero is the other answer.
  if (rest.length < 2 || low <= 0 || low <= (high - low) * GAP_TO_ZERO) return false;
  const all = rowsOf(rest);
  // Where many hold it, zero is those who have none, unless it is out of all reach.
  if (low >= (high - low) * FAR_FROM_ZERO)
    return zero.count < all * MANY_ZEROS || low >= (high - low) * OUT_OF_REACH;
  const mean = Math.abs(rest.reduce((sum, level) => sum + numberOf(level) * level.count, 0)) / all;
  const sd = Math.sqrt(
    rest.reduce((sum, level) => sum + (Math.abs(numberOf(level)) - mean) ** 2 * level.count, 0) / all,
  );
  return (mean >= NARROW * sd || beginsAbruptly(low, rest)) && zero.count < all * FEW_ZEROS;
}

/** Distinct values, steps down to zero, and rows at the first values beside the usual, from which on a quantity begins as if cut. */
const LEAST_CUT = 20;
const STEPS_TO_ZERO = 8;
const FULL = 0.3;
/** Grown-ups from eighteen on, wages from the lowest: a quantity that is full from its first values on does not thin out towards zero. */
function beginsAbruptly(low: number, rest: LevelList): boolean {
  if (rest.length < LEAST_CUT || numberOf(levelAt(rest, 0)) < 0) return false;
  const usual = countsIn(rest).slice().sort()[rest.length >> 1];
  const first = rowsOf(rest.slice(0, 3)) / 3;
  return (
    low >= STEPS_TO_ZERO * stepAt([...rest.slice(0, NEAREST)]) &&
    first >= usual * FULL &&
    first >= LEAST_FIRST
  );
}
const LEAST_FIRST = 3;

const LEAST_LEVELS = 30;
/** Whether a quantity of many values merely goes on below zero: step by step, each value about as frequent as the first above it. */
export function goesOn(below: LevelList, rest: LevelList): boolean {
  if (below.length === 0 || rest.length < LEAST_LEVELS) return false;
  const first = rowsOf(rest.slice(0, NEAREST)) / Math.min(NEAREST, rest.length);
  const step = stepAt([...rest.slice(0, NEAREST)]);
  const down = [...below, levelAt(rest, 0)];
  return down.every(
    (level, i) =>
      (i === 0 || numberOf(level) - numberOf(down[i - 1]) <= 2 * step) &&
      (level === levelAt(rest, 0) || level.count <= 2.5 * first + 2),
  );
}

/** Rows at zero, as a share of all, and beside those at one, where a scale starts after it. */
const RARE_ZERO = 0.025;
const LONGEST_SCALE = 10;
/** Zero before a scale of codes from one on, far rarer than any of them. */
export function beginsAfterZero({ kind }: Pick<Subject, 'kind'>, zero: Level, rest: LevelList): boolean {
  if (
    !isCategorical(kind) ||
    rest.length < 3 ||
    rest.length > LONGEST_SCALE ||
    numberOf(levelAt(rest, 0)) !== 1 ||
    numberOf(levelAt(rest, rest.length - 1)) !== rest.length
  )
    return false;
  return (
    zero.count <= rowsOf(rest) * RARE_ZERO &&
    rest.every(({ count }) => zero.count * 2 < count) &&
    zero.count * CLIFF < levelAt(rest, 0).count
  );
}

/** Whether the first answers are so many, beside the codes below them, that a quantity ends there. */
const CLIFF = 6;
export function breaksOff(below: LevelList, rest: LevelList): boolean {
  const [first, second = first] = rest;
  const slope = Math.max(1, second.count / first.count);
  return first.count >= levelAt(below, below.length - 1).count * CLIFF * slope;
}

const LEAST_BALANCED = 5;
const MOST_BALANCED = 21;
/** A scale of whole numbers that reaches as far below zero as above, with answers on both sides. */
export function isBalanced(levels: LevelList): boolean {
  const held = levels.filter(({ value, standing }) => value !== null && standing === 'valid');
  if (held.length < LEAST_BALANCED || held.length > MOST_BALANCED) return false;
  // A person may have ordered the codes otherwise.
  const [low, high] = [smallest(held.map(numberOf)), largest(held.map(numberOf))];
  const below = rowsOf(held.filter((level) => numberOf(level) < 0));
  return low < -1 && low === -high && held.length === high - low + 1 && below >= rowsOf(held) * 0.1;
}

/** Whether a quantity runs out step by step below zero, as one does that may be negative. */
export function runsOut(below: LevelList, rest: LevelList): boolean {
  const down = [...below, levelAt(rest, 0)];
  return (
    down.every(
      (level, i) =>
        i === 0 || (numberOf(level) - numberOf(down[i - 1]) === 1 && level.count >= down[i - 1].count),
    ) && !breaksOff(below, rest)
  );
}
