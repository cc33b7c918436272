import { InputError } from '../extract/problem';
import { isBlank } from './looks';
import { guessDialect, guessHeader, guessTitles, HEADER_ROWS, usualWidth, type Dialect } from './dialect';
import { asUtf8, decoded, guessEncoding, turnedNotice, type Encoding } from './encoding';
import { unpacked } from './gzip';
import { notText } from './signature';
import { firstBytes, type ByteSource, type Control } from './source';
import { columnNames } from './names';
import { Notices } from './notices';
import { spansOf } from './spans';
import { split } from './split';
import type { FileRead, RowTaker } from './taker';
import { Waiting } from './waiting';

/** Everything about a delimited file that was guessed or chosen. */
export interface DelimitedReading extends Dialect {
  encoding: Encoding;
}

/** What a first look at a delimited file shows, before anything is decided. */
export interface DelimitedLook {
  packed: boolean;
  reading: DelimitedReading;
  because: Record<keyof DelimitedReading, string>;
  /** Names of the columns as they would be, and the first rows below them. */
  names: string[];
  rows: string[][];
  /** The last rows, where the end of the file can be reached without reading all of it and is not among the first. */
  last: string[][];
  /** Number of rows, where the first look reached the end. */
  all: number | null;
  /** About how many rows there are, where only part of a file that is not packed was looked at. */
  about: number | null;
  /** The text that was looked at. */
  sample: string;
}

const SAMPLE_BYTES = 1 << 18;
const TAIL_BYTES = 1 << 16;
/** Wider rows than this are no table: line ends are missing. */
const MOST_COLUMNS = 50_000;
/** A row of more bytes than this is no row. */
const LONGEST_ROW = 1 << 27;
/** Text is cut in pieces of about this many bytes, or larger ones that hold enough rows of a wide file. */
const PIECE = 1 << 19;
/** The first one, in which the names stand, is for the parser. */
const FIRST_PIECE = 1 << 16;
const LARGEST_PIECE = 1 << 23;
const ROWS_PER_PIECE = 400;
/** Rows whose lines need to be kept one by one; where more do, the lines of rows are not told. */
const MOST_PLACES = 20_000;
const encoder = new TextEncoder();
/** Bytes of a text as UTF-8. */
const lengthOf = (text: string): number => encoder.encode(text).length;

/**
 * Looks at the first bytes: guesses whatever `chosen` does not fix, and shows the first rows.
 * @throws InputError for an empty file and for what is no text
 */
export async function lookAtDelimited(
  source: ByteSource,
  chosen: Partial<DelimitedReading>,
  most: number,
  lastRows: number,
): Promise<DelimitedLook> {
  const file = source.name;
  const plain = await unpacked(source);
  const { bytes: sample, whole } = await firstBytes(plain.open(), SAMPLE_BYTES);
  if (sample.length === 0)
    throw new InputError({ file, says: 'the file is empty; fetch it again or choose another' });
  const other = notText(sample);
  if (other) throw new InputError({ file, says: `this is ${other}, not delimited text` });
  const guessed = guessEncoding(sample);
  const encoding = chosen.encoding ?? guessed.encoding;
  let text = '';
  for await (const part of decoded(one(sample), encoding, () => undefined)) text += part;
  if (/^\s*<(\?xml|!doctype|html)/i.test(text))
    throw new InputError({
      file,
      line: 1,
      says: 'this is an XML or HTML document and no DDI codebook; bring the data file itself',
    });
  if (isBlank(text)) throw new InputError({ file, line: 1, says: 'the file holds only white space' });
  const dialect = guessDialect(text, whole);
  const cut = { delimiter: chosen.delimiter ?? dialect.delimiter, quote: chosen.quote ?? dialect.quote };
  let rows = withoutEmpty(split(text, cut, whole).rows);
  if (rows.length === 0) rows = withoutEmpty(split(text, cut, true).rows);
  const titles = Math.min(
    chosen.titles ??
      (chosen.delimiter === undefined ? dialect.titles : guessTitles(rows, usualWidth(rows).width)),
    rows.length - 1,
  );
  rows = withRowNames(rows.slice(titles), chosen.header ?? true);
  const header = guessHeader(rows.slice(0, HEADER_ROWS));
  const reading: DelimitedReading = { ...cut, encoding, titles, header: chosen.header ?? header.header };
  const width = rows[0].length;
  checkWidth(file, width);
  const body = rows.slice(reading.header ? 1 : 0);
  return {
    packed: plain.packed,
    reading,
    because: {
      delimiter: chosen.delimiter ? 'chosen' : dialect.because.delimiter,
      quote: chosen.quote === undefined ? dialect.because.quote : 'chosen',
      encoding: chosen.encoding ? 'chosen' : guessed.because,
      header: chosen.header === undefined ? header.because : 'chosen',
      titles: chosen.titles === undefined ? dialect.because.titles : 'chosen',
    },
    names: columnNames(reading.header ? rows[0] : [], width).names,
    rows: body.slice(0, most),
    last: whole
      ? body.slice(most).slice(-lastRows)
      : plain.packed
        ? []
        : await lastOf(source, reading, width, lastRows),
    all: whole ? body.length : null,
    about:
      whole || plain.packed || body.length === 0
        ? null
        : Math.round((body.length * source.bytes) / sample.length),
    sample: text,
  };
}

function checkWidth(file: string, width: number): void {
  if (width > MOST_COLUMNS)
    throw new InputError({
      file,
      line: 1,
      says: `the first row has ${width} cells; its line end is missing, or the delimiter is another one`,
    });
}

/** The last rows of a large file, from its end: those that are as wide as the first. */
async function lastOf(
  source: ByteSource,
  reading: DelimitedReading,
  width: number,
  most: number,
): Promise<string[][]> {
  if (!source.slice || source.bytes <= TAIL_BYTES) return [];
  // An even place, so that no character of UTF-16 is cut in two.
  const bytes = await source.slice((source.bytes - TAIL_BYTES) & ~1, source.bytes);
  const text = new TextDecoder(reading.encoding).decode(bytes);
  const begin = /\r\n|\n|\r/.exec(text);
  if (!begin) return [];
  const { rows } = split(text.slice(begin.index + begin[0].length), reading, true);
  return rows.filter((row) => row.length === width).slice(-most);
}

/** Reads one delimited file to its end. Ragged rows are kept and noticed with their line. */
export async function readDelimited(
  source: ByteSource,
  reading: DelimitedReading,
  taker: RowTaker,
  control: Control = {},
  mostRows: number | null = null,
): Promise<FileRead> {
  const file = source.name;
  const opened = await unpacked(source);
  const notices = new Notices();
  let encoding: string = reading.encoding;
  let damaged = false;
  let width = 0;
  let read = 0;
  let line = 1;
  let partial = false;
  const lines: [number, number][] = [];
  let consumed = 0;
  /** Notes where a row stands, if not on the line after the row before it. */
  const stands = (row: number, at: number): void => {
    const before = lines.at(-1);
    if ((!before || before[1] + row - before[0] !== at) && lines.length <= MOST_PLACES) lines.push([row, at]);
  };

  const waiting = new Waiting();
  /** Rows at which a piece begins, with their bytes; `null` where the bytes of the file are not those that are read. */
  let begins: [number, number][] | null = reading.encoding === 'utf-8' && !opened.packed ? [] : null;
  /** Takes rows where they lie. @returns bytes used, `null` where the parser is needed */
  const takeCells = (last: boolean): number | null => {
    const found = width > 0 && !damaged ? spansOf(waiting, reading, width, last) : null;
    if (!found) return null;
    const rows = mostRows === null ? found.rows : Math.min(found.rows, mostRows - read);
    partial ||= rows < found.rows;
    stands(read, line);
    let within = 0;
    for (const [row, breaks] of found.breaks) {
      within += breaks;
      if (row + 1 < rows) stands(read + row + 1, line + row + 1 + within);
    }
    taker.spans(rows < found.rows ? { ...found, rows } : found);
    read += rows;
    line += found.rows + within;
    return found.used;
  };
  /** Takes rows that the parser finds. @returns bytes used */
  const takeText = (text: string, last: boolean): number => {
    const piece = split(text, reading, last);
    if (piece.unclosed !== null) {
      const at = line + lineEnds(text.slice(0, piece.unclosed));
      throw new InputError({
        file,
        line: at,
        says: 'a quotation mark opens here and is never closed; the file is cut off, or the mark belongs to the text (then read it without quotes)',
      });
    }
    const rows =
      last && piece.rows.length && emptyRow(piece.rows[piece.rows.length - 1])
        ? piece.rows.slice(0, -1)
        : piece.rows;
    // Where no cell holds a line break of its own, rows and lines go together.
    const place =
      lineEnds(text.slice(0, piece.used)) <= rows.length ? (row: number) => line + row : lineOf(rows, line);
    for (const row of piece.badQuotes)
      notices.add(
        place(row),
        'a quotation mark inside a quoted cell is not doubled; check this row',
        'quotes',
      );
    let start = 0;
    if (width === 0 && rows.length) {
      let above = reading.titles;
      const first = rows.findIndex((row) => !emptyRow(row) && above-- === 0);
      rows.slice(0, Math.max(0, first)).forEach((row, i) => {
        if (!emptyRow(row))
          notices.add(place(i), `a title, not read: ${row.join(' ').slice(0, 120)}`, 'titles');
      });
      // Whether there is a column without a name shows in the rows below the names.
      if (first >= 0 && first === rows.length - 1 && !last) return 0;
      if (first >= 0) {
        const named = withRowNames(rows.slice(first), reading.header);
        if (named[0] !== rows[first]) {
          notices.add(place(first), ROW_NAMES, 'row names');
          rows[first] = named[0];
        }
        const made = columnNames(reading.header ? rows[first] : [], rows[first].length);
        width = made.names.length;
        checkWidth(file, width);
        for (const says of made.notices) notices.add(place(first), says, 'names');
        taker.names(made.names);
        start = reading.header ? first + 1 : first;
      }
    }
    const kept: string[][] = [];
    for (let i = start; i < rows.length; i++) {
      const row = rows[i];
      if (mostRows !== null && read + kept.length >= mostRows) {
        partial ||= !emptyRow(row);
        break;
      }
      if (row.length !== width) {
        if (emptyRow(row)) {
          notices.add(place(i), 'the line is empty and was passed over', 'empty lines');
          continue;
        }
        const beyond = row.slice(width).filter((cell) => cell !== '');
        notices.add(
          place(i),
          `row has ${row.length} ${row.length === 1 ? 'cell' : 'cells'}, ${width} expected${beyond.length ? `; not read: ${beyond.join(' | ').slice(0, 120)}` : ''}`,
          'ragged rows',
        );
      }
      stands(read + kept.length, place(i));
      kept.push(row);
    }
    if (damaged && text.includes('\uFFFD')) {
      kept.forEach((row, i) => {
        const cell = row.findIndex((value) => value.includes('\uFFFD'));
        if (cell >= 0)
          notices.add(
            place(start + i),
            `cell ${cell + 1} holds bytes that are not valid ${encoding}`,
            'bad bytes',
          );
      });
    }
    if (kept.length) taker.rows(kept);
    read += kept.length;
    line += lineEnds(text.slice(0, piece.used));
    return lengthOf(text) - lengthOf(text.slice(piece.used));
  };
  const take = (last: boolean): number => {
    if (width > 0) begins?.push([read, consumed]);
    // The names are found in a small piece: what comes after them need not be text.
    const head = width === 0 ? waiting.head(FIRST_PIECE) : '';
    const used = takeCells(last) ?? ((head && takeText(head, false)) || takeText(waiting.text, last));
    waiting.drop(used);
    consumed += used;
    return used;
  };

  let enough = PIECE;
  const parts = asUtf8(
    withMark(opened.open(), (bytes) => (consumed = bytes)),
    reading.encoding,
    (to) => {
      begins = null;
      if (to === 'damaged') damaged = true;
      else encoding = to;
      notices.add(undefined, turnedNotice(to), 'encoding');
    },
  );
  for await (const part of parts) {
    waiting.add(part);
    if (waiting.length < enough) continue;
    const used = take(false);
    if (used === 0 && waiting.length > LONGEST_ROW)
      throw new InputError({
        file,
        line,
        says: `no row ends within ${LONGEST_ROW >> 20} million characters; the file is no table, or a quotation mark is never closed`,
      });
    // A row longer than a piece: look again only when there is twice as much, so that the work stays linear.
    const piece = Math.min(LARGEST_PIECE, Math.max(PIECE, (consumed / Math.max(1, read)) * ROWS_PER_PIECE));
    enough = used === 0 ? waiting.length * 2 : Math.max(piece, waiting.length + piece / 2);
    control.progress?.(file, opened.consumed(), read);
    await control.breathe?.();
    if (partial) break;
  }
  while (waiting.length > 0 && !partial) take(true);
  control.progress?.(file, source.bytes, read);
  if (width === 0) throw new InputError({ file, line: 1, says: 'the file holds no cells' });
  if (read === 0) notices.add(undefined, 'the file holds a header and no rows', 'no rows');
  return {
    rows: read,
    columns: width,
    encoding,
    partial,
    lines: lines.length > MOST_PLACES ? undefined : lines,
    ...(begins ? { begins } : {}),
    notices: notices.list(),
  };
}

const ROW_NAMES =
  'every row has one cell more than there are names: the first column holds the names of the rows, and has none itself';
/**
 * Rows whose first names all columns, where all others have one cell more and the first column has no name, as programs write
 * it that name their rows: a blank name is put before the others. The same rows where that is not so.
 */
function withRowNames(rows: string[][], header: boolean): string[][] {
  const [names, ...rest] = rows;
  const below = rest.filter((row) => !emptyRow(row));
  if (!header || !names || below.length === 0 || below.some(({ length }) => length !== names.length + 1))
    return rows;
  // A delimiter at the end of every row makes no column.
  if (below.every((row) => row[row.length - 1] === '') || names.some((name) => name.trim() === ''))
    return rows;
  return [['', ...names], ...rest];
}

const emptyRow = (row: readonly string[]): boolean => row.length === 1 && row[0] === '';

/** The first rows without lines that hold nothing, unless the file has one column only. */
function withoutEmpty(rows: string[][]): string[][] {
  const filled = rows.filter((row) => !emptyRow(row));
  return filled.some((row) => row.length > 1)
    ? filled
    : filled.length
      ? rows.slice(0, rows.length - (emptyRow(rows[rows.length - 1]) ? 1 : 0))
      : filled;
}

function lineEnds(text: string): number {
  let ends = 0;
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) ends++;
  if (ends === 0) for (let at = text.indexOf('\r'); at >= 0; at = text.indexOf('\r', at + 1)) ends++;
  return ends;
}

/** Line at which a row begins, for growing row indices: cells may hold line breaks of their own. */
function lineOf(rows: readonly string[][], firstLine: number): (row: number) => number {
  let at = 0;
  let line = firstLine;
  return (row) => {
    if (row < at) {
      at = 0;
      line = firstLine;
    }
    for (; at < row && at < rows.length; at++) {
      line++;
      for (const cell of rows[at]) if (cell.includes('\n')) line += lineEnds(cell);
    }
    return line;
  };
}

/** The same bytes. @param told how many of them are a byte order mark, before any other comes */
async function* withMark(
  parts: AsyncIterable<Uint8Array>,
  told: (bytes: number) => void,
): AsyncGenerator<Uint8Array> {
  let head: number[] | null = [];
  for await (const part of parts) {
    if (head) {
      head.push(...part.subarray(0, BYTE_ORDER_MARK.length - head.length));
      if (head.length === BYTE_ORDER_MARK.length) {
        if (BYTE_ORDER_MARK.every((byte, i) => head?.[i] === byte)) told(BYTE_ORDER_MARK.length);
        head = null;
      }
    }
    yield part;
  }
}
const BYTE_ORDER_MARK = [0xef, 0xbb, 0xbf];

async function* one(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}
