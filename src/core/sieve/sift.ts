import { allRows, both, either, except, others, sizeOf, type Bits } from '../extract/bits';
import { BETWEEN_PULSES, pulse } from '../extract/pulse';
import { isNumericStorage } from '../extract/words';
import type { Places } from '../infer/level-coding';
import type { LevelList } from '../infer/level-list';
import { spellingsOf } from '../infer/levels';
import { valueOf } from '../infer/read-levels';
import type { Written } from '../infer/storage';
import type { ConditionCounts } from '../rows/all-rows';
import { intervalOf } from './bounds';
import type { Condition } from './condition';

/** What a condition may know of a variable: as all rows have it, whichever of them are kept. */
export interface Sifted {
  name: string;
  written: Written;
  /** Levels as rulings leave them. */
  places: Places;
  /** Codes that count for others, whether any row holds them or not. */
  merges: ReadonlyMap<string, string>;
}
/** A variable by its name; `undefined` where there is none. */
export type Lookup = (name: string) => Sifted | undefined;

/** Why a condition cannot be held against an extract; `null` where it can. */
export function misfitOf(condition: Condition, lookup: Lookup): string | null {
  if ('not' in condition) return misfitOf(condition.not, lookup);
  if ('any' in condition) {
    for (const one of condition.any) {
      const says = misfitOf(one, lookup);
      if (says !== null) return says;
    }
    return null;
  }
  const variable = lookup(condition.variable);
  if (!variable) return `there is no variable ${condition.variable}`;
  if (!isRange(condition)) return null;
  const found = intervalOf(condition, variable.written.storage, variable.written.utc);
  return typeof found === 'string' ? `${condition.variable}: ${found}` : null;
}

const isRange = (condition: Condition): condition is Extract<Condition, { from?: unknown }> =>
  'variable' in condition &&
  !('codes' in condition) &&
  !('answered' in condition) &&
  !('contains' in condition);

/** Codes that a condition names and no row holds, each with its variable. */
export function unheld(condition: Condition, lookup: Lookup): { variable: string; code: string }[] {
  if ('not' in condition) return unheld(condition.not, lookup);
  if ('any' in condition) return condition.any.flatMap((one) => unheld(one, lookup));
  const variable = lookup(condition.variable);
  if (!variable || !('codes' in condition)) return [];
  return condition.codes
    .filter((code) => placesNamed(variable, code).length === 0)
    .map((code) => ({ variable: condition.variable, code }));
}

/**
 * The rows for which a condition holds. Each level is asked once, then rows are looked up by their codes.
 * @param rows number of all rows @throws Error for a condition that does not fit: ask `misfitOf` first
 */
export function sift(condition: Condition, lookup: Lookup, rows: number): Bits {
  if ('not' in condition) return others(sift(condition.not, lookup, rows), rows);
  if ('any' in condition)
    return condition.any
      .map((one) => sift(one, lookup, rows))
      .reduce((all, one) => either(all, one), new Int32Array((rows + 31) >>> 5));
  const variable = lookup(condition.variable);
  if (!variable) throw new Error(`there is no variable ${condition.variable}`);
  return rowsAt(variable.places, holdingPlaces(variable, condition), rows);
}

/** The rows that stand at one of some places. */
function rowsAt({ coding }: Places, holds: Uint8Array, rows: number): Bits {
  const bits = new Int32Array((rows + 31) >>> 5);
  const { codes, to } = coding;
  // Codes of texts lead to places: asked once for each text.
  const held = Uint8Array.from(to, (place) => (place < 0 ? 0 : holds[place]));
  for (let row = 0; row < rows; row++) {
    if ((row & (BETWEEN_PULSES - 1)) === 0) pulse();
    if (held[codes[row]]) bits[row >>> 5] |= 1 << (row & 31);
  }
  return bits;
}

/** A condition on one variable. */
export type PlainCondition = Exclude<Condition, { not: Condition } | { any: Condition[] }>;

/** For each place whether a condition holds there: 1 or 0. */
export function holdingPlaces(variable: Sifted, condition: PlainCondition): Uint8Array {
  const { places, written } = variable;
  const holds = new Uint8Array(places.size);
  if ('codes' in condition) {
    for (const code of condition.codes) for (const place of placesNamed(variable, code)) holds[place] = 1;
    return holds;
  }
  if ('answered' in condition) {
    places.levels.forEach(({ standing }, i) => (holds[i] = standing === 'valid' ? 1 : 0));
    return condition.answered ? holds : holds.map((one) => 1 - one);
  }
  if ('contains' in condition) {
    const sought = condition.contains.toLowerCase();
    places.levels.forEach(({ code }, i) => (holds[i] = code.toLowerCase().includes(sought) ? 1 : 0));
    return holds;
  }
  const interval = intervalOf(condition, written.storage, written.utc);
  if (typeof interval === 'string') throw new Error(interval);
  places.levels.forEach(({ standing, value }, i) => {
    holds[i] =
      standing === 'valid' && value !== null && value >= interval.from && value <= interval.to ? 1 : 0;
  });
  return holds;
}

interface Index {
  byText: Map<string, number>;
  byValue: Map<number, number[]>;
}
const indexes = new WeakMap<Places, Index>();

/** Places of the levels that a named code stands for: to the letter, by value among numbers, or what it was merged into. */
export function placesNamed(variable: Sifted, code: string): number[] {
  const { places, written, merges } = variable;
  let index = indexes.get(places);
  if (!index) indexes.set(places, (index = indexOf(places.levels, written)));
  const passed = new Set<string>();
  for (let at: string | undefined = code; at !== undefined && !passed.has(at); at = merges.get(at)) {
    const exact = index.byText.get(at);
    if (exact !== undefined) return [exact];
    const value = isNumericStorage(written.storage) ? valueOf(at, written) : null;
    const alike = value === null ? undefined : index.byValue.get(value);
    if (alike) return alike;
    passed.add(at);
  }
  return [];
}

function indexOf(levels: LevelList, written: Written): Index {
  const byText = new Map<string, number>();
  const byValue = new Map<number, number[]>();
  const numeric = isNumericStorage(written.storage);
  for (const [place, level] of [...levels].entries())
    for (const text of spellingsOf(level)) {
      byText.set(text, place);
      const value = numeric ? valueOf(text, written) : null;
      // Whole numbers that a double does not tell apart meet by text alone.
      if (value === null || Math.abs(value) > Number.MAX_SAFE_INTEGER) continue;
      const known = byValue.get(value);
      if (!known) byValue.set(value, [place]);
      else if (!known.includes(place)) known.push(place);
    }
  return { byText, byValue };
}

/** What one condition of a sieve does to the rows. */
export interface ConditionAccount extends ConditionCounts {
  says: string;
}

/** What a sieve does to the rows that are there. */
export interface Sifting {
  /** Number of rows that are there, and of those kept. */
  all: number;
  kept: number;
  within: Bits;
  conditions: ConditionCounts[];
  /** For each condition the rows that fail it. */
  failed: Bits[];
}

/**
 * Holds all conditions against the rows that are there, and keeps the account.
 * @param there rows that are not set aside; all where it is `null`
 */
export function siftAll(
  conditions: readonly Condition[],
  lookup: Lookup,
  rows: number,
  there: Bits | null,
): Sifting {
  const base = there ?? allRows(rows);
  const all = sizeOf(base);
  let kept = base;
  // Rows that fail one condition at least, and two.
  let once: Bits = new Int32Array(base.length);
  let twice: Bits = new Int32Array(base.length);
  const lefts: number[] = [];
  const failed = conditions.map((condition) => {
    const fails = except(base, sift(condition, lookup, rows));
    twice = either(twice, both(once, fails));
    once = either(once, fails);
    kept = except(kept, fails);
    lefts.push(sizeOf(kept));
    return fails;
  });
  return {
    all,
    kept: sizeOf(kept),
    within: kept,
    failed,
    conditions: failed.map((fails, i) => {
      const drops = sizeOf(fails);
      return { keeps: all - drops, drops, dropsAlone: sizeOf(except(fails, twice)), left: lefts[i] };
    }),
  };
}
