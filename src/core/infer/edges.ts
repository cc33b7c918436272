import type { Level } from './levels';

/** Most sentinel codes that one edge of a variable is believed to have. */
const MOST_CODES = 4;

/**
 * How much the digits alone make a number look like a code for no answer, in log odds: all nines, nines ending in 7 or
 * 8, all eights, small negatives; far below zero for numbers that are never used so.
 */
export function digitForm(value: number): number {
  const digits = String(Math.abs(value)).replace('.', '');
  if (value < 0) return /^(9+[789]?|8+|7+)$/.test(digits) && digits.length > 1 ? 1.8 : /^[1-9]$/.test(digits) ? 0.9 : -9;
  if (value === 0) return 0.3;
  if (/^9{2,}$/.test(digits)) return 1.8;
  if (/^9+[678]$/.test(digits) || /^8{2,}$/.test(digits)) return 1.2;
  if (digits === '9') return 1;
  return digits === '8' ? 0.5 : digits === '7' ? 0.2 : -9;
}

/** Codes of sentinel form at either end of a variable, each beyond the widest gap there, and the rest between. */
export interface Edges {
  top: Level[];
  bottom: Level[];
  rest: Level[];
}

/** @param valid levels that are numbers, ascending */
export function edgesOf(valid: readonly Level[]): Edges {
  const top = widest(valid.slice(-MOST_CODES - 1).reverse(), (value) => value > 0 && digitForm(value) > 0);
  const first = valid.slice(0, MOST_CODES + 1);
  const negative = first.filter(({ value }) => (value as number) < 0);
  // Where only a few codes lie below zero they belong together; the step over zero is their gap.
  const bottom = negative.length > 0 && negative.length < first.length
    ? negative.every(({ value }) => digitForm(value as number) > 0) ? negative : []
    : widest(first, (value) => value <= 0 && digitForm(value) > 0);
  if (top.length + bottom.length >= valid.length) return { top: [], bottom: [], rest: [...valid] };
  return { top, bottom, rest: valid.slice(bottom.length, valid.length - top.length) };
}

function widest(fromEdge: readonly Level[], suspicious: (value: number) => boolean): Level[] {
  const value = (i: number): number => fromEdge[i].value as number;
  let most = 0;
  while (most < MOST_CODES && most < fromEdge.length - 1 && suspicious(value(most))) most++;
  let cut = 0;
  let gap = 0;
  for (let i = 1; i <= most; i++) {
    const here = Math.abs(value(i) - value(i - 1));
    if (here > gap) {
      gap = here;
      cut = i;
    }
  }
  return fromEdge.slice(0, cut);
}

/** The levels without edge codes that stand further from the rest than half the rest is wide: the quantity itself. */
export function bodyOf(valid: readonly Level[]): readonly Level[] {
  const { top, bottom, rest } = edgesOf(valid);
  if (rest.length < 2) return valid;
  const value = (level: Level): number => level.value as number;
  const reach = (value(rest[rest.length - 1]) - value(rest[0])) / 2;
  const above = top.length > 0 && value(top[top.length - 1]) - value(rest[rest.length - 1]) > reach ? [] : [...top].reverse();
  // Few steps below zero are telling; zero itself is an answer unless the quantity lives far from it.
  const low = bottom.length > 0 ? value(bottom[bottom.length - 1]) : 0;
  const below = bottom.length > 0 && value(rest[0]) - low > (low < 0 ? Math.min(reach, 5) : reach) ? [] : bottom;
  return [...below, ...rest, ...above];
}
