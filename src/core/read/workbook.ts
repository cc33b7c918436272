import type { Workbook, Worksheet } from 'exceljs';
import { InputError } from '../extract/problem';
import { bounded } from './bounds';
import { columnNames } from './names';
import { carriedIn, isHanded, SHEETS, spellAgain } from './handed-workbook';
import { guessHeader, guessTitles, HEADER_ROWS, usualWidth } from './dialect';
import { Notices } from './notices';
import { allBytes, type ByteSource, type Control } from './source';
import { cellText, unescaped } from './workbook-cells';
import type { FileRead, RowTaker } from './taker';

/** The sheets of a workbook (OOXML, ISO/IEC 29500) as tables of raw texts. */
export interface Sheet {
  name: string;
  /** All rows down to the last that holds something, each up to its last cell that does. */
  rows: string[][];
  /** Rows that were written, whether they hold anything or not. */
  written: number;
  /** Columns of the table; a row may have fewer cells, never more. */
  width: number;
  /** Cells that stand far beyond the table, by their places, with what they hold; and how many there are. */
  strays: { first: string[]; number: number };
  hidden: boolean;
}

/** Columns beyond so many empty ones are no part of a table. */
const MOST_EMPTY_BETWEEN = 50;
const STRAYS_NAMED = 3;

const parsed = new WeakMap<ByteSource, Promise<Sheet[]>>();

/** Opens a workbook; one that was opened before is not parsed again. @throws InputError where it is no workbook, is damaged, or unpacks beyond bounds */
export function openWorkbook(source: ByteSource): Promise<Sheet[]> {
  let sheets = parsed.get(source);
  if (!sheets) parsed.set(source, (sheets = parse(source)));
  return sheets;
}

async function parse(source: ByteSource): Promise<Sheet[]> {
  const file = source.name;
  const bytes = await allBytes(source.open());
  const shared = await checkBounds(file, bytes);
  const { default: excel } = await import('exceljs');
  const workbook: Workbook = new excel.Workbook();
  try {
    await workbook.xlsx.load(
      bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer,
    );
  } catch (cause) {
    throw new InputError({
      file,
      says: `the workbook is damaged or cannot be read (${(cause as Error).message.split('\n')[0]}); open it in a spreadsheet, save it anew, or save the sheet as delimited text`,
    });
  }
  const { date1904 } = workbook.properties;
  const sheets = workbook.worksheets.map((sheet) => ({
    name: sheet.name,
    ...tableOf(sheet, date1904 ?? false, shared ? (text) => text : unescaped),
    hidden: sheet.state !== 'visible',
  }));
  spellAgain(sheets);
  if (sheets.length === 0) throw new InputError({ file, says: 'the workbook has no sheet' });
  return sheets;
}

/**
 * Unpacks a workbook's parts and counts them, before a package that does not count is let near.
 * @returns whether its texts are shared
 */
async function checkBounds(file: string, bytes: Uint8Array): Promise<boolean> {
  const { Unzip, UnzipInflate } = await import('fflate');
  const count = bounded(file, bytes.length);
  let shared = false;
  const unzip = new Unzip((member) => {
    shared ||= /sharedStrings\.xml$/i.test(member.name);
    member.ondata = (error, part) => {
      if (error)
        throw new InputError({ file, says: `the workbook is damaged (${error.message}); fetch it again` });
      count(part.length);
    };
    member.start();
  });
  unzip.register(UnzipInflate);
  for (let at = 0; at < bytes.length; at += 1 << 16)
    unzip.push(bytes.subarray(at, at + (1 << 16)), at + (1 << 16) >= bytes.length);
  return shared;
}

/** Only cells that hold something take memory, wherever they stand. */
function tableOf(
  sheet: Worksheet,
  date1904: boolean,
  read: (text: string) => string,
): Pick<Sheet, 'rows' | 'width' | 'strays' | 'written'> {
  const found: { row: number; cells: { column: number; text: string }[] }[] = [];
  const filled = new Set<number>();
  sheet.eachRow({ includeEmpty: false }, (row, number) => {
    const cells: { column: number; text: string }[] = [];
    row.eachCell({ includeEmpty: false }, (cell, column) => {
      const text = read(cellText(cell, date1904));
      if (text === '') return;
      cells.push({ column: column - 1, text });
      filled.add(column - 1);
    });
    if (cells.length) found.push({ row: number - 1, cells });
  });
  const width = widthOf(filled);
  const strays: Sheet['strays'] = { first: [], number: 0 };
  const rows: string[][] = Array.from({ length: (found.at(-1)?.row ?? -1) + 1 }, () => NO_CELLS);
  for (const { row, cells } of found) {
    const texts: string[] = [];
    for (const { column, text } of cells) {
      if (column < width) {
        while (texts.length < column) texts.push('');
        texts.push(text);
      } else if (strays.number++ < STRAYS_NAMED)
        strays.first.push(`${columnLetters(column)}${row + 1} “${text.slice(0, 40)}”`);
    }
    rows[row] = texts;
  }
  return { rows, width, strays, written: sheet.rowCount };
}

const NO_CELLS: string[] = [];

/** The columns up to the first wide stretch in which no row holds anything. */
function widthOf(filled: ReadonlySet<number>): number {
  let width = 0;
  for (const column of [...filled].sort((a, b) => a - b)) {
    if (width > 0 && column - width >= MOST_EMPTY_BETWEEN) break;
    width = column + 1;
  }
  return width;
}

/** "XFD" for the zero-based column 16383. */
function columnLetters(column: number): string {
  let letters = '';
  for (let n = column + 1; n > 0; n = Math.floor((n - 1) / 26))
    letters = String.fromCharCode(65 + ((n - 1) % 26)) + letters;
  return letters;
}

/** A workbook's sheet as it would be read. */
export interface SheetLook {
  sheet: string;
  sheets: { name: string; rows: number }[];
  titles: number;
  header: boolean;
  because: { sheet: string; header: string; titles: string };
  names: string[];
  rows: string[][];
  last: string[][];
  all: number;
}

export interface SheetChoice {
  sheet?: string | null;
  titles?: number;
  header?: boolean;
}

/** The sheet that holds the data: the one with most cells, those that are shown first. */
export function chooseSheet(sheets: readonly Sheet[]): Sheet {
  const data = isHanded(sheets) ? sheets.find(({ name }) => name === SHEETS.data) : undefined;
  if (data) return data;
  const size = ({ rows, width, hidden }: Sheet): number => rows.length * width * (hidden ? 0.001 : 1);
  return sheets.reduce((a, b) => (size(b) > size(a) ? b : a));
}

/** @throws InputError where there is no such sheet, or nothing in it */
export function lookAtSheet(
  file: string,
  sheets: readonly Sheet[],
  chosen: SheetChoice,
  most: number,
  last: number,
): SheetLook {
  const sheet = chosen.sheet ? sheets.find(({ name }) => name === chosen.sheet) : chooseSheet(sheets);
  if (!sheet)
    throw new InputError({
      file,
      says: `there is no sheet “${chosen.sheet}”; the workbook has ${sheets.map(({ name }) => `“${name}”`).join(', ')}`,
    });
  const { width } = sheet;
  const filled = sheet.rows.filter((row) => row.length > 0);
  if (filled.length === 0)
    throw new InputError({ file, says: `the sheet “${sheet.name}” is empty; choose another` });
  // A title row is one that fills few of the columns.
  // What a handoff wrote begins with the names.
  const handed = sheet.name === SHEETS.data && isHanded(sheets);
  const titles = Math.min(
    chosen.titles ?? (handed ? 0 : guessTitles(filled, usualWidth(filled).width)),
    filled.length - 1,
  );
  const asWide = (row: string[]): string[] =>
    row.length < width ? [...row, ...Array<string>(width - row.length).fill('')] : row;
  const above = filled.slice(titles);
  const table = [...above.slice(0, HEADER_ROWS).map(asWide), ...above.slice(HEADER_ROWS)];
  const header = guessHeader(table.slice(0, HEADER_ROWS));
  const names = chosen.header ?? (handed || header.header);
  const body = names ? table.slice(1) : table;
  return {
    sheet: sheet.name,
    sheets: sheets.map(({ name, rows }) => ({ name, rows: rows.length })),
    titles,
    header: names,
    because: {
      sheet: chosen.sheet
        ? 'chosen'
        : sheets.length === 1
          ? 'the only sheet'
          : 'the sheet that holds most cells',
      header: chosen.header === undefined ? header.because : 'chosen',
      titles:
        chosen.titles === undefined
          ? titles
            ? 'the first rows fill fewer columns'
            : 'the first row is as wide as the rest'
          : 'chosen',
    },
    names: columnNames(names ? table[0] : [], width).names,
    rows: body.slice(0, most).map(asWide),
    last: body.length > most ? body.slice(-last).map(asWide) : [],
    all: body.length,
  };
}

/** Reads one sheet. Rows that hold nothing are passed over; the sheets that are not read are noticed. */
export async function readWorkbook(
  source: ByteSource,
  chosen: SheetChoice,
  taker: RowTaker,
  control: Control,
  mostRows: number | null,
): Promise<FileRead & { sheet: string }> {
  const sheets = await openWorkbook(source);
  const look = lookAtSheet(source.name, sheets, chosen, 0, 0);
  const { rows: filled, width, strays, written } = sheets.find(({ name }) => name === look.sheet) as Sheet;
  const notices = new Notices();
  const lines: [number, number][] = [];
  const others = sheets.filter(({ name, rows: found }) => name !== look.sheet && found.length > 0);
  const carried = carriedIn(sheets);
  // What a handoff wrote has a row for each, whatever it holds.
  const rows =
    carried === null ? filled : Array.from({ length: written }, (_, i) => filled.at(i) ?? NO_CELLS);
  if (others.length && carried === null)
    notices.add(
      undefined,
      `only the sheet “${look.sheet}” is read; not ${others.map(({ name, rows: found }) => `“${name}” (${found.length} rows)`).join(', ')}`,
      'sheets',
    );
  if (strays.number)
    notices.add(
      undefined,
      `${strays.number === 1 ? 'a cell stands' : `${strays.number} cells stand`} far beyond the table and ${strays.number === 1 ? 'is' : 'are'} not read: ${strays.first.join(', ')}${strays.number > strays.first.length ? ' and more' : ''}`,
      'strays',
    );
  let above = look.titles;
  let named = false;
  const body: string[][] = [];
  let last = 0;
  let partial = false;
  rows.forEach((row, i) => {
    if (row.length === 0 && !(carried !== null && named)) return;
    if (above > 0) {
      above--;
      notices.add(
        i + 1,
        `a title, not read: ${row
          .filter((cell) => cell !== '')
          .join(' ')
          .slice(0, 120)}`,
        'titles',
      );
      return;
    }
    if (!named) {
      named = true;
      const made = columnNames(look.header ? row : [], width);
      for (const says of made.notices) notices.add(i + 1, says, 'names');
      taker.names(made.names);
      last = i + 1;
      if (look.header) return;
      last = i;
    }
    if (mostRows !== null && body.length >= mostRows) {
      partial = true;
      return;
    }
    if (i !== last)
      notices.add(
        last + 1,
        i - last === 1
          ? 'the row is empty and was passed over'
          : `${i - last} rows are empty and were passed over`,
        'empty rows',
      );
    last = i + 1;
    const before = lines.at(-1);
    if (!before || before[1] + body.length - before[0] !== i + 1) lines.push([body.length, i + 1]);
    body.push(row);
  });
  if (body.length) taker.rows(body);
  else notices.add(undefined, 'the sheet holds a header and no rows', 'no rows');
  control.progress?.(source.name, source.bytes, body.length);
  await control.breathe?.();
  return {
    rows: body.length,
    columns: look.names.length,
    encoding: 'binary',
    partial,
    lines,
    sheet: look.sheet,
    ...(carried === null ? {} : { carried }),
    notices: notices.list(),
  };
}
