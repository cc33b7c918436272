import { isDateStorage, isMeasure, type Kind } from '../extract/words';
import { isoText } from '../infer/dates';
import { countsIn, levelAt, type Level, type LevelArrays, type LevelList } from '../infer/level-list';
import type { Counts, Valid } from '../infer/levels';
import type { Written } from '../infer/storage';
import { largest } from '../tally/extent';
import { modes } from '../tally/mode';
import { moments } from '../tally/moments';
import { quantile, step } from '../tally/quantile';
import { type Weighed } from '../tally/weighed';
import type { Frequency, InspectedVariable, Statistics } from './schema';

/** Up to this many levels the list of frequencies is complete; above, it holds only the most frequent. */
export const MOST_LISTED = 500;
const MOST_FREQUENT = 50;
const MOST_UNREADABLE = 50;

/** The statistics that a kind admits; all others are `null`. */
export function statisticsOf(
  kind: Kind,
  { storage, dateForm }: Pick<Written, 'storage' | 'dateForm'>,
  valid: Valid,
): Statistics {
  const none = {
    min: null,
    max: null,
    mean: null,
    sd: null,
    variance: null,
    range: null,
    median: null,
    q1: null,
    q3: null,
    skewness: null,
    kurtosis: null,
  };
  const mode = modes(valid.levels.counts).map((i) => valid.levels.code(i));
  const values: Weighed = valid;
  if (values.values.length === 0 || !valid.ascending) return { ...none, mode };
  const low = values.values[0];
  const high = values.values[values.values.length - 1];
  if (isDateStorage(storage)) {
    const form = storage as 'date' | 'time' | 'datetime';
    return { ...none, min: isoText(low, form, dateForm), max: isoText(high, form, dateForm), mode };
  }
  if (kind !== 'ordinal' && !isMeasure(kind)) return { ...none, mode };
  // Between two steps of a scale there is nothing: of ordered categories a quantile is one of them.
  const at = (p: number): number | null => (kind === 'ordinal' ? step(values, p) : quantile(values, p));
  const ranks = { min: low, max: high, median: at(0.5), q1: at(0.25), q3: at(0.75) };
  if (!isMeasure(kind)) return { ...none, ...ranks, mode };
  const { mean, sd, variance, skewness, kurtosis } = moments(values);
  return { ...ranks, mean, sd, variance, range: high - low, skewness, kurtosis, mode };
}

/** Frequencies in value order, complete up to 500 levels; above that the 50 most frequent. @param hasAll whether these are all levels */
export function frequenciesOf(
  levels: LevelArrays,
  counts: Counts,
  hasAll = true,
): { frequencies: Frequency[]; complete: boolean } {
  const listed = counts.unreadable ? levels.where((place) => !levels.isUnreadable(place)) : levels;
  const complete = hasAll && listed.length <= MOST_LISTED;
  const shown = complete ? listed : mostFrequent(listed);
  const asked = counts.all - counts.notAsked;
  return {
    complete,
    frequencies: shown.map(({ code, label, count, standing, spellings }) => ({
      code,
      label,
      count,
      shareOfAll: count / counts.all,
      shareOfAsked: standing === 'not-asked' ? null : count / asked,
      shareOfValid: standing === 'valid' ? count / counts.valid : null,
      missing: standing !== 'valid',
      ...(spellings.length > 1 ? { spellings: [...spellings] } : {}),
    })),
  };
}

/** The most frequent levels, without sorting all of them: only those that reach the count of the last one wanted. */
export function mostFrequent(levels: LevelList, most = MOST_FREQUENT): Level[] {
  const counts = countsIn(levels);
  if (areOnce(counts)) return [...levels.slice(0, most)];
  const least = leastOf(counts, most);
  // Of those that reach it just so, which may be very many, only the first are wanted.
  const [above, just]: [number[], number[]] = [[], []];
  for (let i = 0; i < counts.length; i++)
    if (counts[i] > least) above.push(i);
    else if (counts[i] === least && just.length < most) just.push(i);
  return [...above.sort((a, b) => counts[b] - counts[a]), ...just]
    .slice(0, most)
    .map((place) => levelAt(levels, place));
}

/** Whether each stands in one row alone. */
function areOnce(counts: Float64Array): boolean {
  for (let i = 0; i < counts.length; i++) if (counts[i] !== 1) return false;
  return true;
}

function areWhole(counts: Float64Array): boolean {
  for (let i = 0; i < counts.length; i++) if (Math.floor(counts[i]) !== counts[i]) return false;
  return true;
}

/** Largest counts that are counted themselves, rather than sorted. */
const MOST_COUNTED = 1 << 16;

/** The count of the last of so many that are the largest. */
function leastOf(counts: Float64Array, most: number): number {
  const highest = largest(counts);
  if (highest >= MOST_COUNTED || !areWhole(counts)) {
    const sorted = counts.slice().sort();
    return sorted[Math.max(0, sorted.length - most)];
  }
  const having = new Uint32Array(highest + 1);
  for (let i = 0; i < counts.length; i++) having[counts[i]]++;
  let passed = 0;
  for (let count = highest; count > 0; count--) if ((passed += having[count]) >= most) return count;
  return 0;
}

export function missingCodesOf(levels: LevelList): InspectedVariable['missingCodes'] {
  return levels
    .filter(({ standing }) => standing === 'missing' || standing === 'not-asked')
    .map(({ code, label, reason, count, declaredBy }) => ({
      code,
      label,
      reason: reason ?? 'other',
      count,
      declaredBy: declaredBy ?? 'codebook',
    }));
}

export function unreadableOf(levels: LevelList): InspectedVariable['unreadable'] {
  return levels
    .filter(({ standing }) => standing === 'unreadable')
    .sort((a, b) => b.count - a.count)
    .slice(0, MOST_UNREADABLE)
    .map(({ code, count }) => ({ text: code, count }));
}
