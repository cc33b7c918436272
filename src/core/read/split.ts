import Papa from 'papaparse';

/** How the text of a delimited file is cut into cells. `quote` `''` means that quotes are ordinary characters. */
export interface Cut {
  delimiter: string;
  quote: string;
}

export interface Piece {
  rows: string[][];
  /** UTF-16 units of the text that the rows used up; the rest belongs to the next piece. */
  used: number;
  /** Zero-based rows whose quoting breaks RFC 4180 but could be read. */
  badQuotes: number[];
  /** Index of a quote that is never closed, only where `last`. */
  unclosed: number | null;
}

/** A character that no text holds, to switch quoting off. */
const NO_QUOTE = '\u0000';

/**
 * Cuts text into rows of cells. Unless it is the `last` piece, an unfinished row at its end is left unused.
 * Line ends may be CRLF, LF or CR, also mixed; inside quotes they belong to the cell.
 */
export function split(text: string, { delimiter, quote }: Cut, last: boolean): Piece {
  const hasReturn = text.includes('\r');
  const hasFeed = text.includes('\n');
  const mixed = hasReturn && hasFeed && /(^|[^\r])\n/.test(text);
  const newline = !hasReturn || mixed ? '\n' : hasFeed ? '\r\n' : '\r';
  // A carriage return at the end of a piece may be half of a line end.
  if (!last && newline === '\r' && text.endsWith('\r'))
    return { ...split(text.slice(0, -1), { delimiter, quote }, last) };
  const parser = new Papa.Parser({ delimiter, newline, quoteChar: quote || NO_QUOTE });
  const { data, errors, meta } = parser.parse(text, 0, !last) as Papa.ParseResult<string[]>;
  if (mixed) {
    for (const row of data) {
      const end = row.length - 1;
      if (row[end].endsWith('\r')) row[end] = row[end].slice(0, -1);
    }
  }
  const unclosed = errors.find((error) => error.code === 'MissingQuotes');
  return {
    rows: data,
    used: last ? text.length : meta.cursor,
    badQuotes: errors.filter((error) => error.code === 'InvalidQuotes').map((error) => error.row ?? 0),
    unclosed: unclosed ? (unclosed.index ?? 0) : null,
  };
}
