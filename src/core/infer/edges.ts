import { largest } from '../tally/extent';
import { countsIn, levelAt, type Level, type LevelList } from './level-list';
import { numberAt, numberOf as value } from './levels';

/** Most sentinel codes that one edge of a variable is believed to have. */
const MOST_CODES = 6;

/**
 * How much the digits alone make a number look like a code for no answer, in log odds: all nines, nines that count down
 * from there (999, 998 … 994), one digit throughout (66, 77, 88), small negatives; far below zero for numbers that are
 * never used so.
 */
export function digitForm(value: number): number {
  const digits = String(Math.abs(value)).replace('.', '');
  if (value < 0)
    return /^(9+[5-9]?|8+|7+|6+)$/.test(digits) && digits.length > 1
      ? 1.8
      : /^[1-9]$/.test(digits)
        ? 0.9
        : -9;
  if (value === 0) return 0.3;
  if (/^9{2,}$/.test(digits)) return 1.8;
  if (/^9+[678]$/.test(digits) || /^8{2,}$/.test(digits)) return 1.2;
  if (Number.isInteger(value) && /^(7{2,}|6{2,}|9+[45])$/.test(digits))
    return digits.startsWith('7') ? 0.9 : 0.6;
  if (digits === '9') return 1;
  return digits === '8' ? 0.5 : digits === '7' ? 0.2 : -9;
}

/** Codes of sentinel form at either end of a variable, each beyond the widest gap there, and the rest between. */
export interface Edges {
  /** The outermost first. */
  top: readonly Level[];
  bottom: readonly Level[];
  rest: LevelList;
}

/** @param valid levels that are numbers, ascending */
export function edgesOf(valid: LevelList): Edges {
  const last = [...valid.slice(-MOST_CODES - 1)].reverse();
  const below = last.length > 1 && value(last[1]) < 0;
  const top = widest(last, (value) => (value > 0 || (value === 0 && below)) && digitForm(value) > 0);
  const first = [...valid.slice(0, MOST_CODES + 1)];
  const negative = first.filter(({ value }) => (value as number) < 0);
  // Where only a few codes lie below zero they belong together; the step over zero is their gap.
  const bottom =
    negative.length > 0 && negative.length < first.length
      ? negative.every(({ value }) => digitForm(value as number) > 0)
        ? negative
        : []
      : widest(first, (value) => value <= 0 && digitForm(value) > 0);
  if (top.length + bottom.length >= valid.length) return { top: [], bottom: [], rest: valid };
  // Of two answers zero is one.
  if (bottom.length === 1 && value(bottom[0]) === 0 && valid.length - top.length === 2)
    return { top, bottom: [], rest: valid.slice(0, 2) };
  return { top, bottom, rest: valid.slice(bottom.length, valid.length - top.length) };
}

function widest(fromEdge: readonly Level[], suspicious: (value: number) => boolean): readonly Level[] {
  let most = 0;
  while (most < MOST_CODES && most < fromEdge.length - 1 && suspicious(value(fromEdge[most]))) most++;
  let cut = 0;
  let gap = 0;
  for (let i = 1; i <= most; i++) {
    const here = Math.abs(value(fromEdge[i]) - value(fromEdge[i - 1]));
    // Of equal gaps the inner one, as between 5, 7 and 9, if the values within follow one another.
    const next = fromEdge[i + 1];
    if (here > gap || (here === gap && next && Math.abs(value(fromEdge[i]) - value(next)) < gap)) {
      gap = here;
      cut = i;
    }
  }
  return fromEdge.slice(0, cut);
}

/** The steps between the values nearest to an edge, on average. */
export function stepAt(nearest: readonly Level[]): number {
  const steps = nearest.slice(1).map((level, i) => Math.abs(value(level) - value(nearest[i])));
  return steps.length ? steps.reduce((sum, step) => sum + step, 0) / steps.length : 1;
}

/** How many of the values nearest to an edge tell how its steps are. */
export const NEAREST = 11;

/**
 * Rows that one would expect between an edge code and the rest, were both of one quantity: as many for each step of the
 * gap as the geometric mean of the rows on its two sides. Where the rest runs out to single rows, holes mean nothing.
 *
 * @param nearest the values of the rest nearest to the edge, the nearest last
 */
export function missedIn(code: Level, nearest: readonly Level[]): number {
  const next = nearest[nearest.length - 1];
  return (
    Math.max(0, Math.abs(value(code) - value(next)) / stepAt(nearest) - 1) *
    Math.sqrt(code.count * next.count)
  );
}

/** So many rows missing in the hole before codes at the end of a short scale part them from it. */
const MISSED = 20;
const SHORT = 11;

/** The levels without edge codes that stand further from the rest than half the rest is wide: the quantity itself. */
export const bodyOf = (valid: LevelList): LevelList => valid.slice(...bodySpan(valid));

/** @returns the place of the first level of the quantity itself, and the place behind its last */
export function bodySpan(valid: LevelList): [from: number, to: number] {
  const { top, bottom, rest } = edgesOf(valid);
  if (rest.length < 2) return [0, valid.length];
  const [first, last] = [numberAt(rest, 0), numberAt(rest, rest.length - 1)];
  const reach = (last - first) / 2;
  const above =
    top.length > 0 && (value(top[top.length - 1]) - last > reach || endsScale(rest, top)) ? 0 : top.length;
  // Few steps below zero are telling; zero itself is an answer unless the quantity lives far from it.
  const low = bottom.length > 0 ? value(bottom[bottom.length - 1]) : 0;
  const below =
    bottom.length > 0 &&
    (first - low > (low < 0 ? Math.min(reach, 5) : Math.max(reach, 1)) || areCodesBelow(bottom, rest))
      ? 0
      : bottom.length;
  return [bottom.length - below, bottom.length + rest.length + above];
}

/** Negative numbers before answers from zero or one on: with holes between where rows would have to be, or rare beside the first answers. */
function areCodesBelow(bottom: readonly Level[], rest: LevelList): boolean {
  const first = levelAt(rest, 0);
  if (value(first) < 0 || value(first) > 1 || rest.length < 3 || bottom.some((level) => value(level) >= 0))
    return false;
  // As far below zero as above it goes a scale of its own.
  const last = numberAt(rest, rest.length - 1);
  if (-value(bottom[0]) === last && bottom.length + rest.length === last * 2 + 1) return false;
  const rising = [...bottom, first];
  const missed = rising
    .slice(1)
    .reduce(
      (sum, level, i) =>
        sum + (value(level) - value(rising[i]) - 1) * Math.sqrt(level.count * rising[i].count),
      0,
    );
  return missed >= MISSED || bottom.every(({ count }) => count * RARE < first.count);
}
const RARE = 8;

/** Rare codes beyond a hole after a scale without one: 7 and 9 after 1 to 5. */
function endsScale(rest: LevelList, top: readonly Level[]): boolean {
  const [low, high] = [numberAt(rest, 0), numberAt(rest, rest.length - 1)];
  if (rest.length < 3 || rest.length > SHORT || low > 1 || high - low !== rest.length - 1) return false;
  const most = largest(countsIn(rest));
  return top.every((code) => code.count * 5 < most) && missedIn(top[0], [...rest]) >= MISSED;
}
