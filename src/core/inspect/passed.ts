import type { Variable } from '../extract/extract';
import { isDateStorage, isMeasure, isNumericStorage, type Kind } from '../extract/words';
import type { Declarations } from '../infer/declared';
import { countsOf, spellingsOf, validOf, type Counts, type Levels } from '../infer/levels';
import { levelsOf } from '../infer/read-levels';
import { mergeLevels, withoutCells } from '../infer/relevel';
import type { Written } from '../infer/storage';
import { modes } from '../tally/mode';
import { RunningMoments } from '../tally/running';
import { statisticsOf } from './figures';
import type { Statistics } from './schema';

/**
 * What is known of all rows of a variable that holds more different texts than are counted each for itself. What it is, how it is
 * distributed and what is odd about it is told by the sample that is held.
 */
export interface PassedFigures {
  /** Levels of the texts that were met first, with all their rows. */
  levels: Levels;
  counts: Counts;
  /** Moments and ends of all valid numbers; `null` for what holds none. */
  numbers: RunningMoments | null;
  /** Standard error of the number of distinct values, as a share of it. */
  error: number;
  /** Quartiles and median of all valid numbers, where they are known. */
  quartiles: { q1: number; median: number; q3: number } | null;
  /** Whether the levels hold the lowest and the highest of all values. */
  hasEnds: boolean;
}

/** @param without the cells of rows that are not there, with the number of such rows @returns `null` where nothing passed uncounted */
export function passedFigures(
  { pass }: Variable,
  written: Written,
  declarations: Declarations,
  merges: ReadonlyMap<string, string>,
  without: ReadonlyMap<string, number>,
): PassedFigures | null {
  if (!pass?.others) return null;
  const { texts, counts: rowsOf, others } = pass;
  const met = { texts, counts: rowsOf, rows: rowsOf.reduce((sum, rows) => sum + rows, 0) };
  const levels = withoutCells(
    mergeLevels(levelsOf(met, written, declarations), merges, written, declarations),
    without,
  );
  const counts = countsOf(levels);
  const numeric = isNumericStorage(written.storage);
  const filled = others.rows - others.blank;
  const readable = numeric ? others.numbers.n : filled;
  const plain = numeric && written.numberForm.decimal === '.' && !written.numberForm.implied;
  const valid = validOf(levels);
  return {
    levels: { ...levels, rows: levels.rows + others.rows, blank: levels.blank + others.blank },
    counts: {
      ...counts,
      all: counts.all + others.rows,
      blank: counts.blank + others.blank,
      valid: counts.valid + readable,
      unreadable: counts.unreadable + filled - readable,
      // An estimate may say more than there are rows.
      distinct: Math.min(
        counts.valid + readable,
        Math.max(counts.distinct, others.distinct - (levels.levels.length - counts.distinct)),
      ),
    },
    numbers: plain ? RunningMoments.after(others.numbers).with(valid.values, valid.counts) : null,
    error: others.error,
    quartiles: others.quartiles && areOf(levels, others.quartiles.without) ? others.quartiles : null,
    hasEnds: others.hasEnds ?? false,
  };
}

/** Texts that are told and are no values: what quartiles leave out. */
export const noValues = ({ levels }: Levels): string[] =>
  levels.flatMap((level) => (level.standing === 'valid' ? [] : spellingsOf(level))).sort();

/** Whether what was left out is just what stands for no answer, as far as levels tell. */
function areOf({ levels }: Levels, without: readonly string[]): boolean {
  const left = new Set(without);
  return levels.every((level) =>
    spellingsOf(level).every((text) => left.has(text) === (level.standing !== 'valid')),
  );
}

/** Statistics of the sample, with what is known of all rows in their place: quartiles and the median stay the sample's where they are not. */
export function statisticsPassed(
  kind: Kind,
  written: Written,
  told: Statistics,
  { numbers, levels, quartiles, hasEnds }: PassedFigures,
): Statistics {
  const { levels: valid } = validOf(levels);
  const sampled = { ...told, mode: modes(valid.counts).map((place) => valid.code(place)) };
  if (isDateStorage(written.storage) && hasEnds) {
    const { min, max } = statisticsOf(kind, written, validOf(levels));
    return { ...sampled, min, max };
  }
  if (!numbers || (!isMeasure(kind) && kind !== 'ordinal')) return sampled;
  const { min, max, moments } = numbers.ended;
  const { mean, sd, variance, skewness, kurtosis } = moments;
  const ranks = { min, max, ...(quartiles ? ranksOf(quartiles) : {}) };
  return isMeasure(kind)
    ? { ...sampled, ...ranks, range: max - min, mean, sd, variance, skewness, kurtosis }
    : { ...sampled, ...ranks };
}

const ranksOf = ({ q1, median, q3 }: NonNullable<PassedFigures['quartiles']>): Partial<Statistics> => ({
  q1,
  median,
  q3,
});
