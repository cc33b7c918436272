import type { Cell } from 'exceljs';

/** The raw text of a cell: what a formula came to when it was saved, dates in ISO 8601, numbers as short as they are exact. */
export function cellText(cell: Cell, date1904: boolean): string {
  // Of merged cells only the first holds anything.
  if (cell.isMerged && cell.master !== cell) return '';
  const format = cell.numFmt ?? '';
  // A formula came to what was saved with it, though that be zero, false or nothing.
  return cell.type === FORMULA
    ? valueText(cell.result as Cell['value'], format, date1904)
    : valueText(cell.value, format, date1904);
}
/** The package's number for cells with a formula (ValueType.Formula). */
const FORMULA = 6;

function valueText(value: Cell['value'], format: string, date1904: boolean): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'string') return value;
  if (typeof value === 'number') return String(value);
  if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE';
  if (value instanceof Date) return dateText(value, format, date1904);
  if ('error' in value) return value.error;
  if ('richText' in value) return value.richText.map(({ text }) => text).join('');
  if ('hyperlink' in value)
    return typeof value.text === 'string'
      ? value.text
      : valueText(value.text as Cell['value'], format, date1904);
  return '';
}

const DAY = 86_400_000;

/** A day, a time of day, or both: by the value, and by the cell's format where a whole day may be midnight. */
function dateText(value: Date, format: string, date1904: boolean): string {
  // Seconds are as fine as sheets are read: days are kept there as fractions, which end just beside the second.
  const millis = Math.round(value.getTime() / 1000) * 1000;
  if (Number.isNaN(millis)) return '';
  const iso = new Date(millis).toISOString();
  const origin = date1904 ? Date.UTC(1904, 0, 1) : Date.UTC(1899, 11, 30);
  const bare = format.replace(/"[^"]*"|\[[^\]]*\]/g, '');
  const asksTime = /[hs]/i.test(bare);
  const asksDay = /[yd]/i.test(bare);
  if (millis - origin < DAY && millis >= origin && (asksTime || !asksDay)) return iso.slice(11, 19);
  return millis % DAY === 0 && !(asksTime && asksDay) ? iso.slice(0, 10) : iso.slice(0, 19);
}

/** Signs that XML has no room for, as the form escapes them (ISO/IEC 29500-1, 22.9.2.19). The package reads them where texts are shared, and not where they stand in their cells. */
export const unescaped = (text: string): string =>
  text.includes('_x')
    ? text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, code: string) =>
        String.fromCharCode(Number.parseInt(code, 16)),
      )
    : text;
