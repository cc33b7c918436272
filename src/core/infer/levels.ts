import { LevelArrays, countsIn, levelAt, type Level, type LevelList } from './level-list';

/** The levels of a variable in value order, and the number of blank cells. Levels and blanks add up to all rows. */
export interface Levels {
  rows: number;
  blank: number;
  /** Blank cells of rows that were not asked, by a universe that a person accepted; they are not among `blank`. */
  notAskedBlank?: number;
  levels: LevelArrays;
}

/** What is asked of valid levels again and again, worked out once. */
export interface Valid {
  levels: LevelArrays;
  /** All other levels: missing, not asked, unreadable. */
  others: LevelArrays;
  /** Rows that hold the valid ones. */
  rows: number;
  /** The numbers among their values, ascending, and the rows of each. */
  values: Float64Array;
  counts: Float64Array;
  /** False where a person gave the codes another order than that of their numbers. */
  ascending: boolean;
}
const valids = new WeakMap<Levels, Valid>();

/** The valid levels, in value order. */
export function validOf(of: Levels): Valid {
  const known = valids.get(of);
  if (known) return known;
  const levels = of.levels.where((place) => of.levels.isValid(place));
  const others = levels === of.levels ? NONE : of.levels.where((place) => !of.levels.isValid(place));
  // Mostly all are numbers, or none is.
  const { length } = levels;
  let [numbers, rows, last] = [0, 0, -Infinity];
  let ascending = true;
  for (let i = 0; i < length; i++) {
    rows += levels.counts[i];
    const value = levels.values[i];
    if (Number.isNaN(value)) continue;
    numbers++;
    if (value < last) ascending = false;
    last = value;
  }
  const among = numbers === length ? levels : levels.where((place) => !Number.isNaN(levels.values[place]));
  const made = { levels, others, rows, values: among.values, counts: among.counts, ascending };
  valids.set(of, made);
  return made;
}
const NONE = LevelArrays.from([]);

/** Rows that hold one of the levels. */
export function rowsOf(levels: LevelList): number {
  let sum = 0;
  const counts = countsIn(levels);
  for (let i = 0; i < counts.length; i++) sum += counts[i];
  return sum;
}
/** The number of a level that is one. */
export const numberOf = (level: Level): number => level.value as number;

/** The number of a level that is one, at a place. */
export const numberAt = (levels: LevelList, place: number): number =>
  levels instanceof LevelArrays ? levels.values[place] : numberOf(levelAt(levels, place));

/** Every raw text of a level. */
export const spellingsOf = (level: Level): readonly string[] =>
  level.spellings.length ? level.spellings : [level.code];

/** What the counts of a variable add up from: all = blank + unreadable + missing + notAsked + valid. */
export interface Counts {
  all: number;
  blank: number;
  unreadable: number;
  missing: number;
  notAsked: number;
  valid: number;
  /** Distinct valid values. */
  distinct: number;
}

export function countsOf({ rows, blank, notAskedBlank = 0, levels }: Levels): Counts {
  const counts: Counts = {
    all: rows,
    blank,
    unreadable: 0,
    missing: 0,
    notAsked: notAskedBlank,
    valid: 0,
    distinct: 0,
  };
  for (let i = 0; i < levels.length; i++) {
    const count = levels.counts[i];
    if (levels.isValid(i)) {
      counts.valid += count;
      counts.distinct++;
    } else if (levels.isUnreadable(i)) counts.unreadable += count;
    else if (levels.standing(i) === 'missing') counts.missing += count;
    else counts.notAsked += count;
  }
  return counts;
}
