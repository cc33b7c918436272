import type { MomentSpelling } from '../../extract/spelling';
import type { DeclaredType } from './declared-types';

/** How standards write the spelling of days, times and moments. */

const POSIX: Record<string, string> = {
  yyyy: '%Y',
  yy: '%y',
  MM: '%m',
  M: '%m',
  dd: '%d',
  d: '%d',
  HH: '%H',
  H: '%H',
  mm: '%M',
  ss: '%S',
};
/** As POSIX `strptime` has it, which Table Schema builds on. */
export const posixFormat = ({ pattern, zone, fraction }: MomentSpelling): string =>
  `${pattern.replace(/'([^']*)'|yyyy|yy|MM?|dd?|HH?|mm|ss/g, (sign, literal?: string) => literal ?? POSIX[sign])}${fraction ? '.%f' : ''}${zone ?? ''}`;

/** Whether a declared type can be said so: of moments, those whose decimals of a second are all alike. */
export const hasPosixFormat = (declared: DeclaredType): boolean =>
  !('spelling' in declared) ||
  declared.spelling.fraction !== null ||
  !declared.spelling.pattern.includes('ss');

const DAYS = new Set([
  'yyyy-MM-dd',
  'yyyyMMdd',
  ...['-', '/', '.'].flatMap((by) =>
    ['dd-MM-yyyy', 'd-M-yyyy', 'MM-dd-yyyy', 'M-d-yyyy'].map((form) => form.replaceAll('-', by)),
  ),
]);
const TIMES = new Set(['HH:mm:ss', 'HH:mm']);
/**
 * As CSV on the Web has it: of the forms that every reader of it knows ("Model for Tabular Data", 6.4.4); `null` for others.
 */
export function webFormat({ pattern, zone, fraction }: MomentSpelling): string | null {
  const [day, time] = pattern.includes("'T'") ? pattern.split("'T'") : pattern.split(' ');
  const known = (part: string | undefined): boolean =>
    part !== undefined && (DAYS.has(part) || TIMES.has(part));
  if (!known(day) || (time !== undefined && (!DAYS.has(day) || !TIMES.has(time)))) return null;
  if (pattern.includes('ss') && fraction === null) return null;
  const marks = zone === null ? '' : zone === 'Z' ? 'X' : /^[+-]\d{2}:\d{2}$/.test(zone) ? 'XXX' : null;
  if (marks === null) return null;
  return `${pattern.replaceAll("'", '')}${fraction ? `.${'S'.repeat(fraction)}` : ''}${marks}`;
}
