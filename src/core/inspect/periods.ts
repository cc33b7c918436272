import { isDateStorage } from '../extract/words';
import { isoText } from '../infer/dates';
import type { Level, LevelList } from '../infer/level-list';

/** Stretches of time by which rows are counted. */
export const PERIODS = ['day', 'month', 'year', 'hour'] as const;
export type Period = (typeof PERIODS)[number];

/** A stretch without rows: its first and last period, and how many there are. */
export interface Gap {
  from: string;
  to: string;
  periods: number;
}

/** How many signs of an ISO text name a period. */
const SIGNS: Record<Period, number> = { day: 10, month: 7, year: 4, hour: 2 };
/** Periods of the finest sort that is not finer than this are drawn. */
const MOST_NAMED = 40;
/** More periods than this, empty ones included, cannot be drawn; then the empty ones are left out. */
const MOST_DRAWN = 130;
/** Values that a person calls dates, though they are numbers, are drawn up to this many. */
const MOST_NUMBERS = 200;

export interface Counted {
  by: Period;
  periods: { name: string; count: number }[];
}

/** Rows per day, month or year, whichever gives at most 40; times of day per hour. @param dated in the order of their values */
function countedOf(storage: string, dated: LevelList): Counted {
  if (storage !== 'date' && storage !== 'datetime' && storage !== 'time') {
    // A number that a person confirmed as a date, such as a year, stands for its own period.
    return {
      by: 'year',
      periods: dated.slice(0, MOST_NUMBERS).map(({ code, count }) => ({ name: code, count })),
    };
  }
  const texts = dated.map(({ value, count }) => [isoText(value as number, storage), count] as const);
  const named = (by: Period): Set<string> => new Set(texts.map(([text]) => text.slice(0, SIGNS[by])));
  const by =
    storage === 'time'
      ? 'hour'
      : ((['day', 'month', 'year'] as const).find((period) => named(period).size <= MOST_NAMED) ?? 'year');
  const counts = new Map<string, number>();
  for (const [text, count] of texts) {
    const name = text.slice(0, SIGNS[by]);
    counts.set(name, (counts.get(name) ?? 0) + count);
  }
  return { by, periods: [...counts].map(([name, count]) => ({ name, count })) };
}

const datedOf = (valid: LevelList): Level[] => valid.filter(({ value }) => value !== null);

/** Rows per period, for drawing: periods without rows are there with 0, unless they are too many. */
export function periodsOf(storage: string, valid: LevelList): Counted {
  const counted = countedOf(storage, datedOf(valid));
  const { by, periods } = counted;
  if (!isDateStorage(storage as 'date') || periods.length === 0) return counted;
  const [first, last] = [placeOf(periods[0].name, by), placeOf(periods[periods.length - 1].name, by)];
  if (last - first + 1 > MOST_DRAWN) return counted;
  const counts = new Map(periods.map(({ name, count }) => [name, count]));
  const all = Array.from({ length: last - first + 1 }, (_, i) => nameOf(first + i, by));
  return { by, periods: all.map((name) => ({ name, count: counts.get(name) ?? 0 })) };
}

/** Stretches without rows between the first and the last period; times of day and mere numbers have none. */
export function gapsOf(storage: string, valid: LevelList): Gap[] {
  if (storage !== 'date' && storage !== 'datetime') return [];
  const { by, periods } = countedOf(storage, datedOf(valid));
  return periods.slice(1).flatMap(({ name }, i): Gap[] => {
    const [before, after] = [placeOf(periods[i].name, by), placeOf(name, by)];
    return after - before < 2
      ? []
      : [{ from: nameOf(before + 1, by), to: nameOf(after - 1, by), periods: after - before - 1 }];
  });
}

const DAY_MS = 86_400_000;

/** A period as a number: those that follow one another are one apart. */
function placeOf(name: string, by: Period): number {
  const [year, month = 1, day = 1] = name.split('-').map(Number);
  if (by === 'hour' || by === 'year') return year;
  if (by === 'month') return year * 12 + month - 1;
  // Dates of the first century are not those of the twentieth.
  return new Date(0).setUTCFullYear(year, month - 1, day) / DAY_MS;
}

function nameOf(place: number, by: Period): string {
  const digits = (n: number, width: number): string => String(n).padStart(width, '0');
  if (by === 'hour') return digits(place, 2);
  if (by === 'year') return digits(place, 4);
  if (by === 'month') return `${digits(Math.floor(place / 12), 4)}-${digits((place % 12) + 1, 2)}`;
  const date = new Date(place * DAY_MS);
  return `${digits(date.getUTCFullYear(), 4)}-${digits(date.getUTCMonth() + 1, 2)}-${digits(date.getUTCDate(), 2)}`;
}
