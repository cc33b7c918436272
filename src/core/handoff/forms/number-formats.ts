import type { MomentSpelling } from '../../extract/spelling';

/**
 * Formats in which a spreadsheet shows what it holds as a number (ISO/IEC 29500-1, 18.8.31), and the numbers that stand for
 * days and moments there.
 */

const quoted = (text: string): string => (text ? `"${text.replaceAll('"', '')}"` : '');

/**
 * The format that shows a number as a cell wrote it; empty where the general one does.
 * @param text of the cell @param plain the number with a point before its decimals
 *
 * Example: `(€ 1.234,50)` → `#,##0.00`, with the currency before and brackets around
 */
export function numberFormat(text: string, plain: string, decimal: '.' | ','): string {
  const trimmed = text.trim();
  const parts = /^(\D*?)([.,]?\d[\d.,'’\s\u00a0\u202f\u2009]*)([eE][+-]?\d+)?(\D*)$/u.exec(trimmed);
  if (!parts) return '';
  const [, head, digits, exponent, tail] = parts;
  const core = digits.trim();
  const at = core.lastIndexOf(decimal);
  const decimals = at < 0 ? 0 : core.length - at - 1;
  const whole = at < 0 ? core : core.slice(0, at);
  if (exponent) return `0${decimals ? `.${'0'.repeat(decimals)}` : ''}E+00`;
  const grouped = /\d\D\d{3}/.test(whole);
  const padded = /^0\d/.test(whole) ? whole.length : 0;
  const before = head.replace(/[(+\-\u2212]/g, '');
  const after = (digits.slice(core.length) + tail).replace(/[)\-\u2212]/g, '');
  const plus = /\+/.test(head);
  const odd = before || after || grouped || padded || plus || /[()\u2212]|\d\s*-$/.test(trimmed);
  // The general format shows what needs no zero at its end, up to the digits that it has room for.
  if (!odd && (decimals === 0 || !/0$/.test(core))) return '';
  if (decimals > 15) return '';
  const number = `${grouped ? '#,##0' : '0'.repeat(Math.max(1, padded))}${decimals ? `.${'0'.repeat(decimals)}` : ''}`;
  const shown = `${quoted(before)}${number}${quoted(after)}`;
  if (!plain.startsWith('-')) return plus ? `"+"${shown}` : shown;
  if (trimmed.startsWith('(')) return `${shown};(${shown})`;
  if (/[-\u2212]$/.test(trimmed)) return `${shown};${shown}${quoted(trimmed.slice(-1))}`;
  if (/^\u2212/.test(trimmed)) return `${shown};"\u2212"${shown}`;
  return before && !/^-/.test(trimmed) ? `${shown};${quoted(before)}"-"${number}${quoted(after)}` : shown;
}

const SIGNS: Record<string, string> = { MM: 'mm', M: 'm', HH: 'hh', H: 'h' };
/** The format of days, times and moments that are spelt alike. */
export function momentFormat({ pattern, zone }: MomentSpelling): string {
  const format = pattern.replace(/'([^']*)'|MM?|HH?/g, (sign, literal?: string) =>
    literal === undefined ? SIGNS[sign] : quoted(literal),
  );
  return `${format}${quoted(zone ?? '')}`;
}

const DAY = 86_400_000;
/** Before this day spreadsheets count otherwise than the calendar: they know a 29 February 1900. */
const FIRST = Date.UTC(1900, 2, 1);
const AFTER_LAST = Date.UTC(10_000, 0, 1);

/**
 * The number that stands in a spreadsheet for a day, a time of day or a moment: days since 30 December 1899.
 * @param iso as ISO 8601 writes it @returns `null` where a sheet has no such day, or would not keep its fraction of a second
 */
export function serialOf(iso: string): string | null {
  const bare = iso.replace(/Z$/, '');
  if (/\.\d*[1-9]/.test(bare)) return null;
  const timed = /^\d{2}:/.test(bare);
  const millis = Date.parse(`${timed ? '1970-01-01T' : ''}${bare}${bare.includes(':') ? '' : 'T00:00:00'}Z`);
  if (Number.isNaN(millis)) return null;
  if (timed) return String(millis / DAY);
  return millis < FIRST || millis >= AFTER_LAST ? null : String((millis - Date.UTC(1899, 11, 30)) / DAY);
}
