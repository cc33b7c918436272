import { WordSet } from '../read/word-set';

/** The order in which a written date gives its parts. */
export type DateForm = 'ymd' | 'dmy' | 'mdy' | 'compact' | 'named' | 'month';
/** The two orders that a text alone may leave open. */
export const DATE_ORDERS = ['dmy', 'mdy'] as const;

/** A date or time as a number: days since 1970-01-01, seconds since midnight, or seconds since 1970 for both. */
export interface ReadDate {
  storage: 'date' | 'time' | 'datetime';
  value: number;
}

/** A time of day with its zone. @param minutes how the minutes of a zone are written */
const timeIn = (minutes: string): string =>
  `(\\d{1,2}):(\\d{2})(?::(\\d{2})(?:[.,]\\d+)?)?\\s*([AaPp]\\.?[Mm]\\.?)?\\s*(Z|UTC|[+-]\\d{2}${minutes})?`;
const ONLY_TIME = new RegExp(`^${timeIn(':?\\d{2}')}$`);
/** Databases leave the minutes of a zone out where there are none (+00). */
const WITH_TIME = new RegExp(`^(.+?)(?:T|,?\\s+)\\s*${timeIn('(?::?\\d{2})?')}$`);
const YEAR_FIRST = /^(\d{4})([-/.])(\d{1,2})\2(\d{1,2})$/;
const YEAR_LAST = /^(\d{1,2})([-/.])(\d{1,2})\2(\d{4}|\d{2})$/;
const COMPACT = /^((?:19|20)\d{2})(\d{2})(\d{2})$/;
const NAMED = /^(\d{1,2})(?:st|nd|rd|th|er|\.)?[ .-]*(?:de )?(\p{L}{3,10})\.?[ ,-]*(?:de )?(\d{4}|\d{2})$/u;
const NAMED_FIRST = /^(\p{L}{3,10})\.? (\d{1,2})(?:st|nd|rd|th)?,? (\d{4})$/u;
/** A month of a year, in digits or by name; it stands for its first day. */
const MONTH_LAST = /^((?:1[5-9]|20|21)\d{2})(?:[-/.]|\s?[Mm])(0?[1-9]|1[0-2])$/;
const MONTH_FIRST = /^(0?[1-9]|1[0-2])[-/.]((?:1[5-9]|20|21)\d{2})$/;
const MONTH_NAMED = /^(\p{L}{3,10})\.?[ -]*((?:1[5-9]|20|21)\d{2})$/u;
const NAMED_MONTH = /^((?:1[5-9]|20|21)\d{2})[ -]*(\p{L}{3,10})\.?$/u;
const COMPACT_MONTH = /^((?:18|19|20)\d{2})(0[1-9]|1[0-2])$/;
const DAY = 86400;

/** The months' names and usual short forms in English, German, French and Spanish, without accents. */
const MONTHS: readonly (readonly string[])[] = [
  ['january', 'januar', 'janner', 'janvier', 'enero', 'jan', 'janv', 'ene'],
  ['february', 'februar', 'fevrier', 'febrero', 'feb', 'fevr', 'fev'],
  ['march', 'marz', 'mars', 'marzo', 'mar', 'mrz'],
  ['april', 'avril', 'abril', 'apr', 'avr', 'abr'],
  ['may', 'mai', 'mayo'],
  ['june', 'juni', 'juin', 'junio', 'jun'],
  ['july', 'juli', 'juillet', 'julio', 'jul', 'juil'],
  ['august', 'aout', 'agosto', 'aug', 'ago'],
  ['september', 'septembre', 'septiembre', 'sep', 'sept', 'set'],
  ['october', 'oktober', 'octobre', 'octubre', 'oct', 'okt'],
  ['november', 'novembre', 'noviembre', 'nov'],
  ['december', 'dezember', 'decembre', 'diciembre', 'dec', 'dez', 'dic'],
];
const MONTH_OF = new Map(MONTHS.flatMap((names, i) => names.map((name) => [name, i + 1] as const)));
const MONTHS_NAMED = new WordSet(MONTH_OF.keys());

/** Days since 1970-01-01 of a day of the Gregorian calendar; `null` where there is no such day. */
export function dayNumber(year: number, month: number, day: number): number | null {
  if (month < 1 || month > 12 || day < 1 || day > 31) return null;
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day ? date.getTime() / 1000 / DAY : null;
}

/** The month that a name stands for, 1 to 12; 0 for none. */
const monthOf = (name: string): number =>
  MONTH_OF.get(name.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()) ?? 0;

/** Two digits of a year: 69 to 99 are of the twentieth century, as POSIX has it. */
const fullYear = (digits: string): number =>
  digits.length === 4 ? +digits : +digits + (+digits >= 69 ? 1900 : 2000);

/** Parts of a text that is written like a date, in the form given; `null` where it is not written so. */
function partsOf(text: string, form: DateForm): [number, number, number] | null {
  let m: RegExpExecArray | null;
  switch (form) {
    case 'ymd':
      return (m = YEAR_FIRST.exec(text)) ? [+m[1], +m[3], +m[4]] : null;
    case 'dmy':
      return (m = YEAR_LAST.exec(text)) ? [fullYear(m[4]), +m[3], +m[1]] : null;
    case 'mdy':
      return (m = YEAR_LAST.exec(text)) ? [fullYear(m[4]), +m[1], +m[3]] : null;
    case 'compact':
      return (m = COMPACT.exec(text)) ? [+m[1], +m[2], +m[3]] : null;
    case 'month':
      if ((m = MONTH_LAST.exec(text) ?? COMPACT_MONTH.exec(text))) return [+m[1], +m[2], 1];
      if ((m = MONTH_FIRST.exec(text))) return [+m[2], +m[1], 1];
      if ((m = MONTH_NAMED.exec(text))) return [+m[2], monthOf(m[1]), 1];
      return (m = NAMED_MONTH.exec(text)) ? [+m[1], monthOf(m[2]), 1] : null;
    case 'named':
      if ((m = NAMED.exec(text))) return [fullYear(m[3]), monthOf(m[2]), +m[1]];
      return (m = NAMED_FIRST.exec(text)) ? [+m[3], monthOf(m[1]), +m[2]] : null;
  }
}

/** Which of the two orders make a day of the calendar of a text such as 03/04/2021; none where it is no such text. */
export function dateOrdersOf(text: string): ('dmy' | 'mdy')[] {
  const date = WITH_TIME.exec(text.trim())?.[1].trim() ?? text.trim();
  return DATE_ORDERS.filter((order) => {
    const parts = partsOf(date, order);
    return parts !== null && dayNumber(...parts) !== null;
  });
}

/** Whether a text begins with a word of plain letters that is no month: then it is no date. */
function beginsWithNoMonth(text: string): boolean {
  let length = 0;
  for (; length < text.length; length++) {
    const unit = text.charCodeAt(length);
    // A letter with an accent may belong to the word.
    if (unit > 0x7f) return false;
    const letter = unit | 0x20;
    if (letter < 0x61 || letter > 0x7a) break;
  }
  return length > 0 && !MONTHS_NAMED.has(text, 0, length);
}

/** Whether a text is written like a date or time at all, be there such a day or not. */
export function writtenLikeDate(text: string): boolean {
  // Most texts are no dates, and show it at once.
  if (text.length < 4 || text.length > 40 || beginsWithNoMonth(text) || !/\d/.test(text)) return false;
  const bare = text.trim();
  const date = WITH_TIME.exec(bare)?.[1].trim() ?? bare;
  return (
    ONLY_TIME.test(bare) ||
    YEAR_FIRST.test(date) ||
    YEAR_LAST.test(date) ||
    (partsOf(date, 'named')?.[1] ?? 0) !== 0 ||
    isMonth(bare)
  );
}

/** Whether a text is a month of a year, other than in six digits. */
export const isMonth = (text: string): boolean =>
  text.length >= 6 && !COMPACT_MONTH.test(text) && (partsOf(text, 'month')?.[1] ?? 0) !== 0;
/** Whether a text is a year and a month in six digits. */
export const isCompactMonth = (text: string): boolean => COMPACT_MONTH.test(text);

/** Whether a text is hours and minutes of which no day has so many: 25:00, 31:15:30. */
export function isDuration(text: string): boolean {
  const found = /^(\d{2}):[0-5]\d(?::[0-5]\d(?:[.,]\d+)?)?$/.exec(text.trim());
  return found !== null && +found[1] > 24;
}

/** The time zone that a text names, `Z` for UTC; `null` where it names none. */
export function zoneOf(text: string): string | null {
  const bare = text.trim();
  const zone = (ONLY_TIME.exec(bare)?.[5] ?? WITH_TIME.exec(bare)?.[6]) || null;
  return zone === 'UTC' ? 'Z' : zone;
}

/** @param utc whether a time's zone is taken into account: where a column has times of several */
export function readDate(text: string, form: DateForm, utc = false): ReadDate | null {
  const bare = text.trim();
  const time = ONLY_TIME.exec(bare);
  if (time) {
    const value = seconds(time[1], time[2], time[3], time[4]);
    return value === null ? null : { storage: 'time', value };
  }
  const whole = partsOf(bare, form);
  if (whole) {
    const day = dayNumber(...whole);
    return day === null ? null : { storage: 'date', value: day };
  }
  const both = WITH_TIME.exec(bare);
  const parts = both && partsOf(both[1].trim(), form);
  if (!both || !parts) return null;
  const day = dayNumber(...parts);
  const rest = seconds(both[2], both[3], both[4], both[5]);
  if (day === null || rest === null) return null;
  return { storage: 'datetime', value: day * DAY + rest - (utc ? offset(both[6]) : 0) };
}

/** Seconds by which a zone is ahead of UTC. */
function offset(zone: string | undefined): number {
  const found = /^([+-])(\d{2}):?(\d{2})?$/.exec(zone ?? '');
  return found ? (found[1] === '-' ? -1 : 1) * (+found[2] * 3600 + +(found[3] ?? 0) * 60) : 0;
}

function seconds(hours: string, minutes: string, rest = '0', half?: string): number | null {
  if (half && (+hours < 1 || +hours > 12)) return null;
  const hour = half ? (+hours % 12) + (/^p/i.test(half) ? 12 : 0) : +hours;
  const value = hour * 3600 + +minutes * 60 + +rest;
  return hour < 24 && +minutes < 60 && +rest < 61 ? value : null;
}

/** ISO 8601 text of a value as `readDate` gives it; of a month without its day. */
export function isoText(value: number, storage: 'date' | 'time' | 'datetime', form?: DateForm): string {
  if (storage === 'time') return new Date(value * 1000).toISOString().slice(11, 19);
  const iso = new Date(value * (storage === 'date' ? DAY : 1) * 1000).toISOString();
  return storage === 'date' ? iso.slice(0, form === 'month' ? 7 : 10) : iso.slice(0, 19);
}
