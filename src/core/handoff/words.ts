/** Numbers and words as the report and the screen write them. */

/** Groups of three with a narrow no-break space would break copying; a comma is what the report's language uses. */
export const whole = (n: number): string => String(Math.round(n)).replace(/\B(?=(\d{3})+(?!\d))/g, ',');

/** At most `digits` significant digits, no needless zeros. */
export function figure(x: number | string | null, digits = 5): string {
  if (x === null) return '';
  if (typeof x === 'string') return x;
  if (Number.isInteger(x) && Math.abs(x) < 1e15) return String(x);
  return String(Number(x.toPrecision(digits)));
}

/** "0.4 %"; shares that are not quite nothing or all never read as 0 or 100. */
export function percent(share: number | null): string {
  if (share === null) return '';
  const hundredths = share * 100;
  if (hundredths > 0 && hundredths < 0.05) return '<0.1 %';
  if (hundredths < 100 && hundredths >= 99.95) return '>99.9 %';
  return `${hundredths.toFixed(1)} %`;
}

/** What no XML document may hold (XML 1.0, 2.2): control characters, and halves of characters. */
const NOT_IN_XML =
  /[\0-\x08\x0B\x0C\x0E-\x1F\uFFFE\uFFFF]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;
/** What HTML may not hold beyond that: the later control characters, and code points that are no characters (HTML, 13.2.3.5). */
const NOT_IN_HTML = /[\x7F-\x9F\uFDD0-\uFDEF]/g;

/** A text as it stands in XML, so that nothing of it is markup and the document stays well-formed. */
export const escapeXml = (text: string): string =>
  text
    .replace(NOT_IN_XML, '\uFFFD')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')
    .replace(/'/g, '&#39;');

/** The same in HTML, and in the pictures that stand in it. */
export const escapeHtml = (text: string): string => escapeXml(text).replace(NOT_IN_HTML, '\uFFFD');

/** A share as it stands in HTML: "<0.1 %" has a sign of markup in it. */
export const percentHtml = (share: number | null): string => escapeHtml(percent(share));

/** "1 variable", "12 variables". */
export const counted = (n: number, thing: string, things = `${thing}s`): string =>
  `${whole(n)} ${n === 1 ? thing : things}`;
