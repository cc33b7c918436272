import { couldBeNumber } from './number';
import { split } from './split';

/** How a delimited file is to be read: the guesses that a person can change. */
export interface Dialect {
  delimiter: string;
  quote: string;
  header: boolean;
  /** Rows above the names that hold a title or a note and no data; lines that hold nothing do not count. */
  titles: number;
}

/** Each guess of a dialect with its reason in words. */
export interface GuessedDialect extends Dialect {
  because: { delimiter: string; quote: string; header: string; titles: string };
}

export const USUAL_DELIMITERS = [',', ';', '\t', '|', ':', ' ', '~', '^'] as const;
const SAMPLE_ROWS = 400;

/** Name of a delimiter for people. */
export function delimiterName(delimiter: string): string {
  const names: Record<string, string> = {
    ',': 'comma',
    ';': 'semicolon',
    '\t': 'tab',
    '|': 'vertical bar',
    ':': 'colon',
    ' ': 'blank',
    '~': 'tilde',
    '^': 'caret',
  };
  return names[delimiter] ?? `“${delimiter}”`;
}

const ENOUGH = 1 << 16;
const ENOUGH_LINES = 25;

/** The dialect of a sample of text, by what cuts it into rows of equal length. `complete`: the sample is all there is. */
export function guessDialect(text: string, complete: boolean): GuessedDialect {
  const quote = guessQuote(text);
  // Every candidate splits what it looks at, so it looks at no more than tells.
  const short = text.slice(0, ENOUGH);
  const [sample, whole] =
    short.split('\n').length > ENOUGH_LINES ? [short, complete && short === text] : [text, complete];
  const scored = candidates(sample).map((delimiter) => {
    const piece = split(sample, { delimiter, quote }, whole);
    const rows = (piece.rows.length ? piece.rows : split(sample, { delimiter, quote }, true).rows).slice(
      0,
      SAMPLE_ROWS,
    );
    return { delimiter, rows, ...evenness(rows) };
  });
  const best = scored.reduce((a, b) => (b.score > a.score ? b : a));
  const filled = best.rows.filter((row) => row.length > 1 || row[0] !== '' || best.width === 1);
  const titles = guessTitles(filled, best.width);
  const header = guessHeader(filled.slice(titles, titles + HEADER_ROWS));
  return {
    delimiter: best.delimiter,
    quote,
    header: header.header,
    titles,
    because: {
      delimiter:
        best.width > 1
          ? `${Math.round(best.share * 100)} of 100 rows looked at have ${best.width} cells`
          : 'nothing cuts the rows into equal cells: one column',
      quote: quote === "'" ? 'cells begin and end with an apostrophe' : 'the usual quotation mark',
      header: header.because,
      titles: titles
        ? `${titles === 1 ? 'the first row holds' : `the first ${titles} rows hold`} less than the ${best.width} cells below`
        : 'the first row is as wide as the rest',
    },
  };
}

/** Rows that are looked at to tell whether the first names the columns. */
export const HEADER_ROWS = 60;
/** Most rows that are believed to be titles. */
const MOST_TITLES = 10;

/** Number of rows at the top that are far narrower than the rest, or padded to full width and all but empty. */
export function guessTitles(rows: readonly string[][], width: number): number {
  if (width < 2) return 0;
  const isTitles = (at: number): boolean => at > 0 && at <= MOST_TITLES && rows[at].length === width;
  // The name of one column beside names of rows, which have none, is no title.
  if (width === 2 && rows[0]?.length === 1 && rows.slice(1).every(({ length }) => length === 2))
    if (/^[\p{L}_.][\p{L}\p{N}_.]*$/u.test(rows[0][0]) && !guessHeader(rows.slice(1, 1 + HEADER_ROWS)).header)
      return 0;
  const narrow = rows.findIndex((row) => row.length > width / 2);
  if (isTitles(narrow)) return narrow;
  // Padded with delimiters, as spreadsheets save them: told by what they hold, if the names below them fill their row.
  const filled = rows.map(filledCells);
  const first = filled.findIndex((cells) => cells > width / 2);
  const most = Math.max(1, Math.floor(width * MOST_OF_TITLE));
  const usual = [...filled].sort((a, b) => a - b)[filled.length >> 1];
  return isTitles(first) &&
    filled.slice(0, first).every((cells) => cells <= most) &&
    filled[first] >= width * FULL &&
    usual > width / 2 &&
    guessHeader(rows.slice(first, first + HEADER_ROWS)).header
    ? first
    : 0;
}
const MOST_OF_TITLE = 0.34;
const FULL = 0.9;
const filledCells = (row: readonly string[]): number =>
  row.reduce((count, cell) => (cell.trim() === '' ? count : count + 1), 0);

function candidates(sample: string): string[] {
  const found = new Set<string>(USUAL_DELIMITERS);
  // Any other single sign that stands equally often in the first two lines.
  const [one = '', two = ''] = sample.split(/\r\n|\n|\r/, 2);
  for (const sign of new Set(one.match(/[^\p{L}\p{N}\s"'._\-]/gu) ?? [])) {
    const times = one.split(sign).length;
    if (times > 1 && times === two.split(sign).length) found.add(sign);
  }
  return [...found].filter((sign) => sign.length === 1);
}

/** The number of cells that most rows have, and how many rows have it. */
export function usualWidth(rows: readonly string[][]): { width: number; count: number } {
  const times = new Map<number, number>();
  for (const { length } of rows) times.set(length, (times.get(length) ?? 0) + 1);
  const [width, count] = [...times].reduce((a, b) => (b[1] > a[1] ? b : a), [1, 0]);
  return { width, count };
}

/** Score of leaving the rows whole: less than any cut that most rows agree on. */
const ONE_COLUMN = 0.3;

/** How evenly rows are cut: the usual width, the share of rows that have it, and a score that prefers more cells. */
function evenness(rows: string[][]): { width: number; share: number; score: number } {
  const filled = rows.filter((row) => row.length > 1 || row[0] !== '');
  const { width, count } = usualWidth(filled);
  const share = filled.length ? count / filled.length : 0;
  const sign = filled.length && width > 1 ? Math.log2(width + 1) * share ** 2 : ONE_COLUMN;
  // The header alone does not decide between two candidates: it must be as wide as the rest.
  const headerFits = filled[0]?.length === width ? 1 : 0.6;
  return { width, share, score: sign * headerFits };
}

function guessQuote(sample: string): string {
  const single = sample.match(/(^|[,;\t|\r\n])'[^'\r\n]*'(?=[,;\t|\r\n])/g)?.length ?? 0;
  return single > 3 && !sample.includes('"') ? "'" : '"';
}

/** Whether the first row names the columns. */
export function guessHeader(rows: readonly string[][]): { header: boolean; because: string } {
  const [first, ...rest] = rows;
  if (!first) return { header: true, because: 'the file is empty' };
  const filled = first.filter((cell) => cell.trim() !== '');
  if (filled.length < first.length * 0.5)
    return { header: false, because: 'most cells of the first row are blank' };
  const numbers = filled.filter(couldBeNumber).length;
  const numericBelow = first.map((_, i) => {
    const cells = rest.map((row) => row[i]?.trim() ?? '').filter(Boolean);
    return cells.length > 0 && cells.filter(couldBeNumber).length > cells.length * 0.8;
  });
  const textOverNumbers = first.filter(
    (cell, i) => numericBelow[i] && cell.trim() !== '' && !couldBeNumber(cell),
  ).length;
  if (textOverNumbers > 0 && numbers <= filled.length * 0.2) {
    return {
      header: true,
      because: `words stand above numbers in ${textOverNumbers} of ${first.length} columns`,
    };
  }
  if (numbers > 0)
    return { header: false, because: `${numbers} of ${first.length} cells of the first row are numbers` };
  if (new Set(filled).size < filled.length) return { header: false, because: 'the first row repeats itself' };
  const recurs = first.filter((cell, i) => cell && rest.some((row) => row[i] === cell)).length;
  if (recurs > first.length * 0.3)
    return { header: false, because: `${recurs} cells of the first row occur again below` };
  const nameLike = filled.filter((cell) => /^[\p{L}_.][\p{L}\p{N}_. -]{0,63}$/u.test(cell.trim())).length;
  return nameLike > filled.length * 0.6
    ? { header: true, because: 'the first row reads like names' }
    : { header: false, because: 'the first row does not read like names' };
}
