import { isDateStorage, isNumericStorage, type Storage } from '../extract/words';
import { readDate } from '../infer/dates';
import type { Bound } from './condition';

/** A closed interval of values as a variable has them; either end may be open. */
export interface Interval {
  from: number;
  to: number;
}

const MONTH = /^(\d{4})-(0[1-9]|1[0-2])$/;
const ISO_DAY = /^\d{4}-\d{2}-\d{2}$/;
const ISO_MOMENT = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}(:\d{2}([.,]\d+)?)?\s*(Z|[+-]\d{2}(:?\d{2})?)?$/;
const TIME = /^\d{2}:\d{2}(:\d{2}([.,]\d+)?)?$/;
const DAY = 86400;

/**
 * The interval that two ends tell of a variable. A day as the end of moments is the whole day, a month the whole month.
 * @param utc whether the variable's times are told in UTC @returns words where an end does not suit the storage, or they cross
 */
export function intervalOf(
  { from, to }: { from?: Bound | undefined; to?: Bound | undefined },
  storage: Storage,
  utc = false,
): Interval | string {
  const [low, high] = [valueAt(from, storage, 'from', utc), valueAt(to, storage, 'to', utc)];
  if (typeof low === 'string') return low;
  if (typeof high === 'string') return high;
  if (low !== null && high !== null && low > high) return `from ${from} lies above to ${to}`;
  return { from: low ?? -Infinity, to: high ?? Infinity };
}

/** @returns `null` for no end */
function valueAt(
  bound: Bound | undefined,
  storage: Storage,
  end: 'from' | 'to',
  utc: boolean,
): number | string | null {
  if (bound === undefined) return null;
  if (isNumericStorage(storage))
    return typeof bound === 'number' && Number.isFinite(bound)
      ? bound
      : `${end} ${JSON.stringify(bound)} is no number, and its values are numbers`;
  if (!isDateStorage(storage))
    return `${end} ${JSON.stringify(bound)} does not suit it: its values are ${storage === 'empty' ? 'all blank' : 'texts'}; name codes, or what they contain`;
  const value = typeof bound === 'string' ? momentOf(bound.trim(), storage, end, utc) : null;
  const wanted = {
    date: 'a day (2019-03-31)',
    time: 'a time of day (08:30)',
    datetime: 'a day or a moment (2019-03-31T08:30)',
  };
  return value ?? `${end} ${JSON.stringify(bound)} is not ${wanted[storage as 'date' | 'time' | 'datetime']}`;
}

function momentOf(text: string, storage: Storage, end: 'from' | 'to', utc: boolean): number | null {
  if (storage === 'time') return TIME.test(text) ? (readDate(text, 'ymd')?.value ?? null) : null;
  const month = MONTH.exec(text);
  const day = month
    ? end === 'from'
      ? `${text}-01`
      : new Date(Date.UTC(+month[1], +month[2], 0)).toISOString().slice(0, 10)
    : ISO_DAY.test(text)
      ? text
      : null;
  if (day !== null) {
    const value = readDate(day, 'ymd')?.value;
    if (value === undefined) return null;
    if (storage === 'date') return value;
    return value * DAY + (end === 'to' ? DAY - 1e-3 : 0);
  }
  return storage === 'datetime' && ISO_MOMENT.test(text) ? (readDate(text, 'ymd', utc)?.value ?? null) : null;
}
