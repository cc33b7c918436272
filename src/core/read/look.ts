import type { Form } from '../extract/extract';
import { InputError } from '../extract/problem';
import { lookAtDelimited, readDelimited, type DelimitedReading } from './delimited';
import { fitsLayout, lookAtFixedWidth, readFixedWidth, type Layout } from './fixed-width';
import { unpacked } from './gzip';
import { guessRecords, lookAtJson, readJson, type Records } from './json';
import { lookAtParquet, readParquet } from './parquet';
import { firstBytes, type ByteSource, type Control } from './source';
import type { FileRead, RowTaker } from './taker';
import { lookAtSheet, openWorkbook, readWorkbook } from './workbook';
import { isZip } from './zip';

/** Everything about how a data file is read that was guessed or chosen, whatever its form. */
export interface Reading extends DelimitedReading {
  form: Form;
  /** The sheet, of a workbook. */
  sheet: string | null;
  /** Where the records are, of a JSON document. */
  records: Records;
}

/** What a first look at a data file shows, before anything is decided. */
export interface Look {
  name: string;
  bytes: number;
  packed: boolean;
  reading: Reading;
  /** Why each part was guessed so; only the parts that matter to the form. */
  because: Partial<Record<keyof Reading, string>>;
  names: string[];
  rows: string[][];
  /** The last rows, where they can be had and are not among the first. */
  last: string[][];
  /** Number of rows, where it is known already. */
  all: number | null;
  /** About how many rows there are, by the bytes that the first ones take; `null` where that cannot be told. */
  about: number | null;
  /** The sheets of a workbook, with their rows. */
  sheets: { name: string; rows: number }[];
}

const PREVIEW_ROWS = 30;
const LAST_ROWS = 3;
const NOTHING: Omit<Reading, 'form'> = {
  delimiter: ',',
  quote: '"',
  header: true,
  titles: 0,
  encoding: 'utf-8',
  sheet: null,
  records: 'list',
};

/** The form of a data file, by its first bytes. @param layout where a codebook says that columns stand in lines */
export async function formOf(
  source: ByteSource,
  chosen: Form | undefined,
  layout: Layout | null,
): Promise<Form> {
  if (chosen) return chosen;
  const plain = await unpacked(source);
  const { bytes } = await firstBytes(plain.open(), 1 << 16);
  if (bytes[0] === 0x50 && bytes[1] === 0x41 && bytes[2] === 0x52 && bytes[3] === 0x31) return 'parquet';
  if (isZip(bytes)) return 'workbook';
  const text = new TextDecoder().decode(bytes);
  if (
    /^\uFEFF?\s*[[{]/.test(text) &&
    guessRecords(text) &&
    /^\uFEFF?\s*(\[\s*(\{|\])|\{\s*("|\}))/.test(text)
  )
    return 'json';
  return layout && fitsLayout(text, layout) && !namesInHeader(text, layout) ? 'fixed-width' : 'delimited';
}

/** Whether the first line of a text names columns of the layout, as only delimited files do. */
function namesInHeader(text: string, layout: Layout): boolean {
  const words = new Set(text.split(/\r\n|\n|\r/, 1)[0].split(/[^\p{L}\p{N}_.]+/u));
  return layout.filter(({ name }) => words.has(name)).length > Math.min(2, layout.length - 1);
}

/**
 * Looks at a data file: guesses whatever `chosen` does not fix, and shows its first and last rows.
 * @param layout the columns of a fixed-width file
 * @throws InputError for a file that cannot be read at all
 */
export async function lookAt(
  source: ByteSource,
  chosen: Partial<Reading> = {},
  layout: Layout | null = null,
): Promise<Look> {
  const form = await formOf(source, chosen.form, layout);
  const base = { name: source.name, bytes: source.bytes, sheets: [], last: [], all: null, about: null };
  const formBecause = chosen.form ? { form: 'chosen' } : {};
  switch (form) {
    case 'delimited': {
      const { reading, because, packed, names, rows, last, all, about } = await lookAtDelimited(
        source,
        chosen,
        PREVIEW_ROWS,
        LAST_ROWS,
      );
      return {
        ...base,
        packed,
        reading: { ...NOTHING, ...reading, form },
        because: { ...formBecause, ...because },
        names,
        rows,
        last,
        all,
        about,
      };
    }
    case 'fixed-width': {
      if (!layout)
        throw new InputError({
          file: source.name,
          says: 'a fixed-width file needs a codebook that says where its columns stand; bring it along',
        });
      const { encoding, because, rows, packed } = await lookAtFixedWidth(
        source,
        layout,
        chosen.encoding,
        PREVIEW_ROWS,
      );
      return {
        ...base,
        packed,
        reading: { ...NOTHING, form, encoding, header: false },
        because: {
          form: chosen.form ? 'chosen' : 'a codebook says where the columns stand',
          encoding: because,
        },
        names: layout.map(({ name }) => name),
        rows,
      };
    }
    case 'json': {
      const { records, because, names, rows, packed } = await lookAtJson(
        source,
        chosen.records,
        PREVIEW_ROWS,
      );
      return {
        ...base,
        packed,
        reading: { ...NOTHING, form, records },
        because: { ...formBecause, records: because },
        names,
        rows,
      };
    }
    case 'parquet': {
      const { names, rows, last, all, packed } = await lookAtParquet(source, PREVIEW_ROWS, LAST_ROWS);
      return {
        ...base,
        packed,
        reading: { ...NOTHING, form },
        because: { form: 'the file begins as Parquet does' },
        names,
        rows,
        last,
        all,
      };
    }
    case 'workbook': {
      const look = lookAtSheet(source.name, await openWorkbook(source), chosen, PREVIEW_ROWS, LAST_ROWS);
      const { sheet, sheets, titles, header, because, names, rows, last, all } = look;
      return {
        ...base,
        packed: false,
        reading: { ...NOTHING, form, sheet, titles, header },
        because,
        names,
        rows,
        last,
        all,
        sheets,
      };
    }
  }
}

/** Reads one data file as a look at it found, or as a person chose. @param mostRows only the first rows, where not `null` */
export async function readFile(
  source: ByteSource,
  reading: Reading,
  layout: Layout | null,
  taker: RowTaker,
  control: Control,
  mostRows: number | null,
): Promise<FileRead & { sheet?: string }> {
  switch (reading.form) {
    case 'delimited':
      return readDelimited(source, reading, taker, control, mostRows);
    case 'fixed-width':
      if (!layout)
        throw new InputError({
          file: source.name,
          says: 'a fixed-width file needs a codebook that says where its columns stand; bring it along',
        });
      return readFixedWidth(source, reading.encoding, layout, taker, control, mostRows);
    case 'json':
      return readJson(source, reading.records, taker, control, mostRows);
    case 'parquet':
      return readParquet(source, taker, control, mostRows);
    case 'workbook':
      return readWorkbook(
        source,
        { sheet: reading.sheet, titles: reading.titles, header: reading.header },
        taker,
        control,
        mostRows,
      );
  }
}
