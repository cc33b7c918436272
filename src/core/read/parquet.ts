import type { Compressors, FileMetaData, SchemaElement } from 'hyparquet';
import { HANDED_ALL } from '../extract/carried';
import { InputError } from '../extract/problem';
import { spelt, spellingsCarried, type Spelling } from '../extract/spelling';
import type { Storage } from '../extract/words';
import { unpacked } from './gzip';
import { Notices } from './notices';
import { allBytes, type ByteSource, type Control } from './source';
import type { FileRead, RowTaker } from './taker';

/** Rows that are taken from the file at a time. */
const BATCH = 20_000;

interface Opened {
  read(from: number, to: number): Promise<unknown[][]>;
  metadata: FileMetaData;
  columns: SchemaElement[];
  rows: number;
  packed: boolean;
}

/** What unpacks pages, one way by one: their package's entry point would also load WebAssembly. Snappy is the reader's own. */
async function compressorsOf(): Promise<Compressors> {
  const [{ decompressBrotli }, { gunzip }, { decompressLz4, decompressLz4Raw }, { decompress }] =
    await Promise.all([
      import('hyparquet-compressors/src/brotli.js'),
      import('hyparquet-compressors/src/gzip.js'),
      import('hyparquet-compressors/src/lz4.js'),
      import('fzstd'),
    ]);
  return {
    GZIP: (input, length) => gunzip(input, new Uint8Array(length)),
    BROTLI: decompressBrotli,
    ZSTD: (input) => decompress(input),
    LZ4: decompressLz4,
    LZ4_RAW: decompressLz4Raw,
  };
}

/** Opens a Parquet file (Apache Parquet, format 2). @throws InputError where it is damaged or uses what cannot be read */
async function openParquet(source: ByteSource): Promise<Opened> {
  const { parquetMetadataAsync, parquetRead, parquetSchema } = await import('hyparquet');
  const compressors = await compressorsOf();
  const plain = await unpacked(source);
  const { slice } = source;
  const whole = slice && !plain.packed ? null : await allBytes(plain.open());
  const file = {
    byteLength: whole ? whole.length : source.bytes,
    slice: async (from: number, to?: number): Promise<ArrayBuffer> => {
      const part = whole
        ? whole.slice(from, to)
        : await (slice as NonNullable<typeof slice>)(from, to ?? source.bytes);
      return part.buffer.slice(part.byteOffset, part.byteOffset + part.byteLength) as ArrayBuffer;
    },
  };
  try {
    const metadata = await parquetMetadataAsync(file);
    const columns = parquetSchema(metadata).children.map(({ element }) => element);
    return {
      metadata,
      columns,
      rows: Number(metadata.num_rows),
      packed: plain.packed,
      read: (rowStart, rowEnd) =>
        new Promise((resolve, reject) => {
          parquetRead({
            file,
            metadata,
            rowStart,
            rowEnd,
            compressors,
            parsers: TEXTS,
            geoparquet: false,
            onComplete: (rows) => resolve(rows),
          }).catch((cause: unknown) => reject(damaged(source.name, cause)));
        }),
    };
  } catch (cause) {
    throw damaged(source.name, cause);
  }
}

const damaged = (file: string, cause: unknown): InputError =>
  cause instanceof InputError
    ? cause
    : new InputError({
        file,
        says: `the Parquet file is damaged or uses what cannot be read here (${cause instanceof Error ? cause.message : String(cause)})`,
      });

/** A moment as ISO 8601 text, with as many decimals of a second as it has. @param units how many there are in a second */
function momentText(value: bigint, units: bigint): string {
  const seconds = value >= 0n ? value / units : (value - units + 1n) / units;
  const rest = value - seconds * units;
  const digits =
    rest === 0n
      ? ''
      : `.${String(rest)
          .padStart(String(units).length - 1, '0')
          .replace(/0+$/, '')}`;
  const date = new Date(Number(seconds) * 1000);
  return Number.isNaN(date.getTime()) ? String(value) : `${date.toISOString().slice(0, 19)}${digits}`;
}

/** Dates and moments become text at once, so that nothing of them is lost. */
const TEXTS = {
  timestampFromMilliseconds: (millis: bigint) => momentText(BigInt(millis), 1000n),
  timestampFromMicroseconds: (micros: bigint) => momentText(BigInt(micros), 1_000_000n),
  timestampFromNanoseconds: (nanos: bigint) => momentText(BigInt(nanos), 1_000_000_000n),
  dateFromDays: (days: number) => {
    const date = new Date(days * 86_400_000);
    return Number.isNaN(date.getTime()) ? String(days) : date.toISOString().slice(0, 10);
  },
  jsonFromBytes: (bytes: Uint8Array | undefined) => bytes && new TextDecoder().decode(bytes),
};

/** How cells of a column are written, as its type declares. */
function declaredStorage(element: SchemaElement): Storage | undefined {
  const logical = element.logical_type?.type ?? element.converted_type;
  switch (logical) {
    case 'DATE':
      return 'date';
    case 'TIME':
    case 'TIME_MILLIS':
    case 'TIME_MICROS':
      return 'time';
    case 'TIMESTAMP':
    case 'TIMESTAMP_MILLIS':
    case 'TIMESTAMP_MICROS':
      return 'datetime';
    case 'DECIMAL':
      return (element.scale ?? 0) > 0 ? 'decimal' : 'integer';
    default:
  }
  switch (element.type) {
    case 'INT32':
    case 'INT64':
      return 'integer';
    case 'INT96':
      return 'datetime';
    case 'FLOAT':
    case 'DOUBLE':
      return 'decimal';
    case 'BYTE_ARRAY':
    case 'FIXED_LEN_BYTE_ARRAY':
    case 'BOOLEAN':
      return 'text';
    default:
      return undefined;
  }
}

/** The shortest text that stands for a number of 32 bits. */
function floatText(value: number): string {
  for (let digits = 6; digits < 9; digits++) {
    const text = String(Number(value.toPrecision(digits)));
    if (Math.fround(Number(text)) === value) return text;
  }
  return String(value);
}

/** How values of columns become the raw texts of cells: as they were spelt, in a file that a handoff wrote. */
function textersOf({ columns, metadata }: Opened): ((value: unknown) => string)[] {
  const spellings = spellingsCarried(carriedIn(metadata));
  return columns.map((column) => {
    const text = texter(column);
    const spelling: Spelling | undefined = spellings.get(column.name);
    return spelling ? (value) => spelt(text(value), spelling) : text;
  });
}

const carriedIn = (metadata: FileMetaData): string | undefined =>
  metadata.key_value_metadata?.find(({ key }) => key === HANDED_ALL)?.value;

function texter(element: SchemaElement): (value: unknown) => string {
  const logical = element.logical_type?.type ?? element.converted_type;
  const unit = element.logical_type?.type === 'TIME' ? element.logical_type.unit : null;
  const utc = element.logical_type?.type === 'TIMESTAMP' && element.logical_type.isAdjustedToUTC ? 'Z' : '';
  const perSecond = logical === 'TIME_MILLIS' || unit === 'MILLIS' ? 1000 : unit === 'NANOS' ? 1e9 : 1e6;
  return (value) => {
    if (value === null || value === undefined) return '';
    if (typeof value === 'string') return value + utc;
    if (typeof value === 'bigint' || typeof value === 'number') {
      if (logical === 'DECIMAL' && typeof value === 'number') return value.toFixed(element.scale ?? 0);
      if (declaredStorage(element) === 'time') {
        const units = BigInt(perSecond);
        return momentText(BigInt(value), units).slice('1970-01-01T'.length);
      }
      return element.type === 'FLOAT' ? floatText(Number(value)) : String(value);
    }
    if (typeof value === 'boolean') return String(value);
    return JSON.stringify(value, (_, inner: unknown) => (typeof inner === 'bigint' ? Number(inner) : inner));
  };
}

/** Names, number of rows, first and last rows of a Parquet file. */
export async function lookAtParquet(
  source: ByteSource,
  most: number,
  last: number,
): Promise<{ names: string[]; rows: string[][]; last: string[][]; all: number; packed: boolean }> {
  const opened = await openParquet(source);
  const { columns, rows, read, packed } = opened;
  const texters = textersOf(opened);
  const cells = (batch: unknown[][]): string[][] =>
    batch.map((row) => texters.map((text, i) => text(row[i])));
  return {
    names: columns.map(({ name }) => name),
    all: rows,
    packed,
    rows: rows ? cells(await read(0, Math.min(most, rows))) : [],
    last: rows > most ? cells(await read(rows - last, rows)) : [],
  };
}

/** Reads a Parquet file to its end, some rows at a time. The types that the file declares are kept. */
export async function readParquet(
  source: ByteSource,
  taker: RowTaker,
  control: Control,
  mostRows: number | null,
): Promise<FileRead> {
  const opened = await openParquet(source);
  const { columns, rows, read, metadata } = opened;
  const texters = textersOf(opened);
  const notices = new Notices();
  const said = carriedIn(metadata);
  taker.names(
    columns.map(({ name }) => name),
    // In a file that a handoff wrote a text says nothing: it stands where a cell was not of a type.
    columns.map((column) => {
      const storage = declaredStorage(column);
      return said !== undefined && storage === 'text' ? undefined : storage;
    }),
  );
  const end = Math.min(rows, mostRows ?? rows);
  for (let from = 0; from < end; from += BATCH) {
    const batch = await read(from, Math.min(end, from + BATCH));
    taker.rows(batch.map((row) => texters.map((text, i) => text(row[i]))));
    control.progress?.(
      source.name,
      Math.round((source.bytes * Math.min(end, from + BATCH)) / Math.max(1, rows)),
      from + batch.length,
    );
    await control.breathe?.();
  }
  const nested = columns.filter(({ num_children }) => num_children).map(({ name }) => name);
  if (nested.length)
    notices.add(
      undefined,
      `columns with nested values are kept as JSON text: ${nested.join(', ')}`,
      'nested',
    );
  if (end === 0) notices.add(undefined, 'the file holds a header and no rows', 'no rows');
  return {
    rows: end,
    columns: columns.length,
    encoding: 'binary',
    partial: end < rows,
    ...(said ? { carried: said } : {}),
    notices: notices.list(),
  };
}
