import type { Column } from '../../extract/column';
import { isCategorical } from '../../extract/words';
import { spellingsOf } from '../../infer/levels';
import { isBlank } from '../../read/looks';
import { bitsOf, common, has, sizeOf, type Bits } from '../../extract/bits';
import type { Subject } from '../rule';
import type { Named } from './universe';

/** A variable that others may hang on: for each row the place of its level. */
export interface Gater {
  levels: Named[];
  /** Level of each row of the sample; −1 for none. */
  sampled: Int16Array;
  indexOf: (row: number) => number;
  /** Rows of the sample at each level, or in each stretch of numbers, as bits; and how many they are. */
  bits: Bits[];
  counts: Float64Array;
  /** More levels than are looked at one by one; they are numbers in order, parted at one place. */
  parted: boolean;
}

/** Levels that shut a question and levels at which it was asked, with the rows that go as they should. */
export interface Split {
  open: number[];
  shut: number[];
  kept: number;
}

/** Levels of the gate that are this often blank were not asked, this seldom were. */
const SHUT = 0.97;
const OPEN = 0.2;
/** Where only some levels of a gate decide, those that open it leave hardly a blank. */
const CLEARLY_OPEN = 0.04;
/** So many codes are looked at one by one; so many numbers are parted at one place, as an age is. */
const MOST_LEVELS = 12;
const MOST_PARTED = 130;
/** Rows on each side of such a place. */
const LEAST_SIDE = 15;
/** A level of a few rows may go either way by chance: these, or that share of the rows. */
const FEW = 5;
const FEW_SHARE = 0.003;
export const isFew = (count: number, rows: number): boolean => count < Math.max(FEW, rows * FEW_SHARE);

export function gaterOf(
  { kind, role, levels }: Subject,
  column: Column,
  sample: readonly number[],
): Gater | null {
  const held = levels.levels.filter(({ standing }) => standing !== 'unreadable');
  const parted = held.length > MOST_LEVELS;
  if (held.length < 2 || held.length > MOST_PARTED) return null;
  // A measure gates as an age does: from one value on.
  if (
    parted
      ? (kind !== 'count' && kind !== 'continuous') ||
        role === 'weight' ||
        held.some(({ value, standing }) => value === null && standing === 'valid')
      : !isCategorical(kind) && kind !== 'count'
  )
    return null;
  // Rows without a value at the gate were not asked either: blank is a level of its own.
  const place = new Map(held.flatMap((level, i) => spellingsOf(level).map((text) => [text, i] as const)));
  const of = (text: string): number => place.get(text) ?? (isBlank(text) ? held.length : -1);
  const indexOf = column.lift(of);
  const levelCount = held.length + 1;
  const sampled = new Int16Array(sample.length);
  for (let n = 0; n < sample.length; n++) sampled[n] = indexOf(sample[n]);
  const bits = parted ? partsOf(sampled, held.length) : bitsByPlace(sampled, levelCount, (level) => level);
  return {
    levels: [...held.map(({ code, label }) => ({ code, label })), { code: '', label: null }],
    sampled,
    indexOf,
    parted,
    bits,
    counts: Float64Array.from(bits, sizeOf),
  };
}

/** Numbers in order, in so many stretches of about as many rows; and last the rows without one. */
const PARTS = 8;
function partsOf(sampled: Int16Array, levels: number): Bits[] {
  const counts = new Float64Array(levels);
  for (const level of sampled) if (level >= 0 && level < levels) counts[level]++;
  const each = counts.reduce((sum, count) => sum + count, 0) / PARTS;
  let passed = 0;
  const part = Array.from(counts, (count) => {
    const place = Math.min(PARTS - 1, Math.floor(passed / Math.max(1, each)));
    passed += count;
    return place;
  });
  return bitsByPlace(sampled, PARTS + 1, (level) => (level === levels ? PARTS : part[level]));
}

/** For each place the rows that stand there, in one pass. */
function bitsByPlace(sampled: Int16Array, places: number, placeOf: (level: number) => number): Bits[] {
  const bits = Array.from({ length: places }, () => new Int32Array((sampled.length + 31) >>> 5));
  for (let n = 0; n < sampled.length; n++)
    if (sampled[n] >= 0) bits[placeOf(sampled[n])][n >>> 5] |= 1 << (n & 31);
  return bits;
}

/** Rows and blanks of each level, over the rows of the sample that are still in play. */
function tallied(
  { bits, counts }: Gater,
  blank: Bits,
  inPlay: Bits | null,
): { all: Float64Array; empty: Float64Array; rows: number } {
  const all = inPlay === null ? counts : Float64Array.from(bits, (level) => common(level, inPlay));
  const empty = new Float64Array(bits.length);
  let rows = 0;
  for (let level = 0; level < bits.length; level++) {
    if (all[level] === 0) continue;
    rows += all[level];
    empty[level] = common(bits[level], blank, inPlay);
  }
  return { all, empty, rows };
}

/** Whether a gate parts the rows in play into those asked and those not. @returns `null` where a level is in between, or no code shuts */
export function splitBy(gater: Gater, blank: Bits, inPlay: Bits | null): Split | null {
  if (gater.parted)
    return mayPart(gater, blank, inPlay) ? partAt(...talliedByRow(gater, blank, inPlay)) : null;
  // Most are in between at the first level already, or shut at none.
  let shuts = false;
  for (let level = 0; inPlay === null && level < gater.bits.length; level++) {
    const [rows, empty] = [gater.counts[level], common(gater.bits[level], blank)];
    const few = isFew(rows, gater.sampled.length);
    if (!few && empty < rows * SHUT && empty > rows * OPEN) return null;
    shuts ||= !few && empty >= rows * SHUT;
  }
  if (inPlay === null && !shuts) return null;
  const { all, empty, rows } = tallied(gater, blank, inPlay);
  return classify(all, empty, rows);
}

/** Of numbers in order that are parted at one place, the ends are shut and open, and only the stretch that holds the place is in between. */
function mayPart({ bits, counts }: Gater, blank: Bits, inPlay: Bits | null): boolean {
  const [shutFrom, openTo] = [SHUT - 0.05, OPEN + 0.1];
  const shareAt = (part: number): number => {
    const all = inPlay === null ? counts[part] : common(bits[part], inPlay);
    return all < FEW ? NaN : common(bits[part], blank, inPlay) / all;
  };
  const [low, high] = [shareAt(0), shareAt(PARTS - 1)];
  // One end may hold the place itself: then the others are all alike.
  if (
    !(low >= shutFrom || high >= shutFrom || low <= openTo || high <= openTo) ||
    (low >= shutFrom && high >= shutFrom) ||
    (low <= openTo && high <= openTo)
  )
    return false;
  let between = 0;
  for (let part = 0; part < PARTS; part++) {
    const share = shareAt(part);
    if (share < shutFrom && share > openTo) between++;
  }
  return between <= 1;
}

function talliedByRow(
  { levels, sampled }: Gater,
  blank: Bits,
  inPlay: Bits | null,
): [Float64Array, Float64Array] {
  const all = new Float64Array(levels.length);
  const empty = new Float64Array(levels.length);
  for (let n = 0; n < sampled.length; n++) {
    const level = sampled[n];
    if (level < 0 || (inPlay !== null && !has(inPlay, n))) continue;
    all[level]++;
    if (has(blank, n)) empty[level]++;
  }
  return [all, empty];
}

/** Levels one by one. The last level is blank: it may be shut, but never alone. */
export function classify(all: Float64Array, empty: Float64Array, rows: number): Split | null {
  const open: number[] = [];
  const shut: number[] = [];
  let kept = 0;
  const last = all.length - 1;
  for (let level = 0; level < all.length; level++) {
    if (all[level] === 0) continue;
    const share = empty[level] / all[level];
    if (isFew(all[level], rows)) kept += Math.max(empty[level], all[level] - empty[level]);
    else if (share >= SHUT) {
      shut.push(level);
      kept += empty[level];
    } else if (share <= OPEN) {
      open.push(level);
      kept += all[level] - empty[level];
    } else return null;
  }
  return open.some((level) => level !== last) && shut.some((level) => level !== last)
    ? { open, shut, kept }
    : null;
}

/** Numbers in order, shut on one side of one place and asked on the other. */
export function partAt(all: Float64Array, empty: Float64Array): Split | null {
  const last = all.length - 1;
  let [rows, blanks] = [0, 0];
  for (let level = 0; level < last; level++) {
    rows += all[level];
    blanks += empty[level];
  }
  // What stands on the side that is shut is blank, what stands on the other is filled: the place with fewest exceptions.
  let best: { at: number; below: boolean; wrong: number } | null = null;
  let [passed, blank] = [0, 0];
  for (let at = 1; at < last; at++) {
    passed += all[at - 1];
    blank += empty[at - 1];
    if (passed < LEAST_SIDE || rows - passed < LEAST_SIDE) continue;
    for (const below of [true, false]) {
      const [shutRows, shutBlanks] = below ? [passed, blank] : [rows - passed, blanks - blank];
      if (shutBlanks < shutRows * SHUT || blanks - shutBlanks > (rows - shutRows) * OPEN) continue;
      const wrong = shutRows - shutBlanks + (blanks - shutBlanks);
      if (!best || wrong < best.wrong) best = { at, below, wrong };
    }
  }
  if (!best) return null;
  const { at, below, wrong } = best;
  const levels = Array.from({ length: last }, (_, level) => level);
  const [under, over] = [levels.slice(0, at), levels.slice(at)];
  // Rows without a number go with the side that they are like.
  const none =
    all[last] === 0
      ? null
      : empty[last] >= all[last] * SHUT
        ? 'shut'
        : empty[last] <= all[last] * OPEN
          ? 'open'
          : 'between';
  if (none === 'between') return null;
  const [shut, open] = below ? [under, over] : [over, under];
  return {
    shut: none === 'shut' ? [...shut, last] : shut,
    open: none === 'open' ? [...open, last] : open,
    kept: rows - wrong + all[last],
  };
}

/** A code, or several, that settle their rows whatever the others do; and how blank the rest is then. */
export interface Decided {
  levels: number[];
  asked: boolean;
  rest: number;
}

const NONE: Decided[] = [];

/** Levels that decide although others leave it open: those that shut the question, and those at which it was always asked. */
export function decided(gater: Gater, blank: Bits, inPlay: Bits | null): Decided[] {
  if (gater.parted) return [];
  const { bits, counts } = gater;
  const last = bits.length - 1;
  const least = Math.max(4 * FEW, gater.sampled.length * 0.02);
  const shut: Decided = { levels: [], asked: false, rest: 0 };
  const open: Decided = { levels: [], asked: true, rest: 0 };
  let [rows, blanks, shutRows, shutBlanks, openRows, openBlanks] = [0, 0, 0, 0, 0, 0];
  for (let level = 0; level <= last; level++) {
    const all = inPlay === null ? counts[level] : common(bits[level], inPlay);
    if (all === 0) continue;
    const empty = common(bits[level], blank, inPlay);
    rows += all;
    blanks += empty;
    if (all < least) continue;
    if (empty >= all * SHUT) {
      shut.levels.push(level);
      shutRows += all;
      shutBlanks += empty;
    } else if (empty <= all * CLEARLY_OPEN) {
      open.levels.push(level);
      openRows += all;
      openBlanks += empty;
    }
  }
  if (shut.levels.length === 0 && open.levels.length === 0) return NONE;
  shut.rest = (blanks - shutBlanks) / Math.max(1, rows - shutRows);
  open.rest = (blanks - openBlanks) / Math.max(1, rows - openRows);
  return [shut, open].filter(({ levels }) => levels.some((level) => level !== last));
}

/** Keeps in play only the rows at the other levels. */
export function without({ sampled }: Gater, levels: readonly number[], inPlay: Bits | null): Bits {
  const settled = new Set(levels);
  return bitsOf(
    sampled.length,
    (n) => sampled[n] >= 0 && !settled.has(sampled[n]) && (inPlay === null || has(inPlay, n)),
  );
}
