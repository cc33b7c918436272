import { TokenType } from '@streamparser/json';
import { InputError } from '../extract/problem';
import { decoded, guessEncoding } from './encoding';
import { unpacked } from './gzip';
import { JsonReader, type Token } from './json-reader';
import { guessShape, isTableShape, tableOf, type JsonTable, type TableShape } from './json-tables';
import { Notices } from './notices';
import { allBytes, firstBytes, type ByteSource, type Control } from './source';
import type { FileRead, RowTaker } from './taker';

/**
 * Where the records of a JSON document are: its elements (`list`), documents one after the other (`lines`), the list that a
 * member of the one document holds (its name after `in `), or no records but a table of another shape.
 */
export type Records = 'list' | 'lines' | `in ${string}` | TableShape;

const SAMPLE_BYTES = 1 << 18;
const BATCH = 2000;

/** Where the records of a document are, by its beginning; `null` where there can be none. */
export function guessRecords(start: string): { records: Records; because: string } | null {
  const text = start.replace(/^\uFEFF/, '').trimStart();
  if (text.startsWith('[')) return { records: 'list', because: 'the document is a list' };
  if (!text.startsWith('{')) return null;
  const [first, second = ''] = text.split(/\r?\n/, 2);
  if (second.trimStart().startsWith('{')) {
    try {
      JSON.parse(first);
      return { records: 'lines', because: 'every line is a document of its own' };
    } catch {
      // The first line is the beginning of something longer.
    }
  }
  return guessShape(text) ?? { records: 'lines', because: 'one document, one record' };
}

const SIGNS: Partial<Record<TokenType, string>> = {
  [TokenType.LEFT_BRACE]: '{',
  [TokenType.RIGHT_BRACE]: '}',
  [TokenType.LEFT_BRACKET]: '[',
  [TokenType.RIGHT_BRACKET]: ']',
  [TokenType.COLON]: ':',
  [TokenType.COMMA]: ',',
};
/** A token as it stands in a text. */
const signOf = (token: TokenType, value: unknown): string =>
  SIGNS[token] ?? (token === TokenType.STRING ? JSON.stringify(value) : String(value));

/** Records that show what names there are; so many more may come later. */
const FIRST_RECORDS = 100;
const MOST_LATER = 3000;

/** Puts records together from tokens: each becomes a row of raw texts; what is nested in a cell stays JSON. */
class RecordTaker {
  readonly names: string[] = [];
  private readonly places = new Map<string, number>();
  private rows: string[][] = [];
  private row: string[] | null = null;
  private seen = new Set<string>();
  private key: string | null = null;
  private nested = '';
  private depth = 0;
  private base: number;
  private member: string | null = null;
  private named = 0;
  count = 0;
  readonly repeated = new Set<string>();
  found = false;

  constructor(
    private readonly file: string,
    private readonly records: Records,
    private readonly most: number | null,
    private readonly taker: RowTaker,
  ) {
    this.base = records === 'list' ? 1 : records === 'lines' ? 0 : 2;
  }

  get done(): boolean {
    return this.most !== null && this.count >= this.most;
  }

  take({ token, value }: Token): void {
    const opens = token === TokenType.LEFT_BRACE || token === TokenType.LEFT_BRACKET;
    const closes = token === TokenType.RIGHT_BRACE || token === TokenType.RIGHT_BRACKET;
    if (this.row) this.inRecord(token, value, opens, closes);
    else this.outside(token, value, opens, closes);
  }

  private outside(token: TokenType, value: unknown, opens: boolean, closes: boolean): void {
    if (closes) this.depth--;
    const within = this.depth === this.base && (this.base < 2 || this.member === this.records.slice(3));
    if (this.base === 2 && this.depth === 1 && token === TokenType.STRING) this.member = String(value);
    if (within && token === TokenType.LEFT_BRACE) {
      if (this.done) return void this.depth++;
      this.row = [];
      this.seen = new Set();
      this.key = null;
      this.found = true;
      return;
    }
    const isValue =
      opens ||
      [TokenType.STRING, TokenType.NUMBER, TokenType.TRUE, TokenType.FALSE, TokenType.NULL].includes(token);
    if (within && isValue && !(this.base === 0 && token === TokenType.LEFT_BRACKET && this.depth > 0)) {
      throw new InputError({
        file: this.file,
        says: `record ${this.count + 1} is no object with names and values; bring a list of records, each {"name": value, …}`,
      });
    }
    if (opens) this.depth++;
  }

  private inRecord(token: TokenType, value: unknown, opens: boolean, closes: boolean): void {
    if (this.nested) {
      this.nest(token, value, opens, closes);
      return;
    }
    if (token === TokenType.RIGHT_BRACE) {
      this.finish();
      return;
    }
    if (token === TokenType.COLON || token === TokenType.COMMA) return;
    if (this.key === null) {
      this.key = String(value);
      return;
    }
    if (opens) {
      this.nested = token === TokenType.LEFT_BRACE ? '{' : '[';
      this.level = 1;
      return;
    }
    this.put(token === TokenType.NULL ? '' : String(value));
  }

  private level = 0;
  /** Names that the first records have. */
  private atFirst = 0;

  private nest(token: TokenType, value: unknown, opens: boolean, closes: boolean): void {
    this.nested += signOf(token, value);
    if (opens) this.level++;
    if (closes && --this.level === 0) {
      this.put(this.nested);
      this.nested = '';
    }
  }

  private put(text: string): void {
    const key = this.key as string;
    this.key = null;
    if (this.seen.has(key)) this.repeated.add(key);
    this.seen.add(key);
    let place = this.places.get(key);
    if (place === undefined) {
      if (this.count > FIRST_RECORDS && this.names.length - this.atFirst > MOST_LATER)
        throw new InputError({
          file: this.file,
          says: `nearly every record has names of its own: ${this.names.length} in the first ${this.count} records; these are no records of one table`,
        });
      place = this.names.length;
      this.places.set(key, place);
      this.names.push(key);
    }
    const row = this.row as string[];
    while (row.length <= place) row.push('');
    row[place] = text;
  }

  private finish(): void {
    if (this.count <= FIRST_RECORDS) this.atFirst = this.names.length;
    this.rows.push(this.row as string[]);
    this.row = null;
    this.count++;
    if (this.rows.length >= BATCH) this.flush();
  }

  flush(): void {
    if (this.names.length > this.named) {
      this.named = this.names.length;
      this.taker.names([...this.names]);
    }
    if (this.rows.length) this.taker.rows(this.rows);
    this.rows = [];
  }
}

/** A document of another shape than records is put together as a whole; larger ones would not fit into one text. */
const LARGEST_TABLE = 300 << 20;
const tables = new WeakMap<ByteSource, Map<TableShape, Promise<JsonTable>>>();

/** The table that a document holds otherwise than record by record; what was read once is not read again. */
function wholeTable(source: ByteSource, shape: TableShape): Promise<JsonTable> {
  const known = tables.get(source) ?? new Map<TableShape, Promise<JsonTable>>();
  tables.set(source, known);
  let table = known.get(shape);
  if (!table) known.set(shape, (table = readTable(source, shape)));
  return table;
}

async function readTable(source: ByteSource, shape: TableShape): Promise<JsonTable> {
  const file = source.name;
  const plain = await unpacked(source);
  const bytes = await allBytes(plain.open());
  if (bytes.length > LARGEST_TABLE)
    throw new InputError({
      file,
      says: `a document that holds its table by ${shape} is read as a whole, up to ${LARGEST_TABLE >> 20} MB; write it as records, one to a line`,
    });
  const text = new TextDecoder(guessEncoding(bytes.subarray(0, 4096)).encoding).decode(bytes);
  return tableOf(file, shape, partsIn(file, text), (part) => partsIn(file, part));
}

/** What an object or a list holds, as raw texts: an object is one record, a list a record whose names count. */
function partsIn(file: string, text: string): { names: string[] | null; values: string[] } {
  const isList = /^\uFEFF?\s*\[/.test(text);
  let values: string[] = [];
  const take = new RecordTaker(file, 'lines', null, {
    names: () => undefined,
    rows: ([row]) => (values = row),
    spans: () => undefined,
  });
  if (isList) return { names: null, values: elementsIn(file, text) };
  if (!/^\uFEFF?\s*\{/.test(text))
    throw new InputError({
      file,
      says: `an object or a list is expected where “${text.slice(0, 40)}” stands`,
    });
  const reader = new JsonReader(file, (token) => take.take(token));
  reader.write(text);
  reader.end();
  take.flush();
  while (values.length < take.names.length) values.push('');
  return { names: take.names, values };
}

/** Elements of a list as raw texts. */
function elementsIn(file: string, text: string): string[] {
  const values: string[] = [];
  let depth = 0;
  let nested = '';
  const reader = new JsonReader(file, ({ token, value }) => {
    const opens = token === TokenType.LEFT_BRACE || token === TokenType.LEFT_BRACKET;
    const closes = token === TokenType.RIGHT_BRACE || token === TokenType.RIGHT_BRACKET;
    if (closes) depth--;
    if (depth >= 1 && (nested || opens)) nested += signOf(token, value);
    else if (depth === 1 && token !== TokenType.COMMA && !closes)
      values.push(token === TokenType.NULL ? '' : String(value));
    if (opens) depth++;
    if (closes && depth === 1) {
      values.push(nested);
      nested = '';
    }
  });
  reader.write(text);
  reader.end();
  return values;
}

/** Names of all records looked at, and the first rows. @throws InputError where it is no JSON, or holds no record */
export async function lookAtJson(
  source: ByteSource,
  chosen: Records | undefined,
  most: number,
): Promise<{ records: Records; because: string; names: string[]; rows: string[][]; packed: boolean }> {
  const plain = await unpacked(source);
  const { bytes, whole } = await firstBytes(plain.open(), SAMPLE_BYTES);
  const text = new TextDecoder(guessEncoding(bytes).encoding).decode(bytes);
  const guess = guessRecords(text);
  if (!guess) throw new InputError({ file: source.name, line: 1, says: 'this is no list of JSON records' });
  const records = chosen ?? guess.records;
  if (isTableShape(records)) {
    const { names, rows } = await wholeTable(source, records);
    return {
      records,
      because: chosen ? 'chosen' : guess.because,
      names,
      rows: rows.slice(0, most),
      packed: plain.packed,
    };
  }
  const rows: string[][] = [];
  const take = new RecordTaker(source.name, records, most, {
    names: () => undefined,
    rows: (batch) => rows.push(...batch),
    spans: () => undefined,
  });
  const reader = new JsonReader(source.name, (token) => take.take(token));
  reader.write(text);
  if (whole) reader.end();
  take.flush();
  return {
    records,
    because: chosen ? 'chosen' : guess.because,
    names: [...take.names],
    rows,
    packed: plain.packed,
  };
}

/** Reads the records of a JSON document or of newline-delimited JSON, piece by piece. Keys that a record lacks are blank. */
export async function readJson(
  source: ByteSource,
  records: Records,
  taker: RowTaker,
  control: Control,
  mostRows: number | null,
): Promise<FileRead> {
  const file = source.name;
  const opened = await unpacked(source);
  const { bytes } = await firstBytes(opened.open(), 4096);
  const notices = new Notices();
  if (isTableShape(records)) {
    const { names, rows } = await wholeTable(source, records);
    const taken = mostRows === null ? rows : rows.slice(0, mostRows);
    taker.names(names);
    for (let from = 0; from < taken.length; from += BATCH) {
      taker.rows(taken.slice(from, from + BATCH));
      control.progress?.(file, Math.round((source.bytes * from) / taken.length), from);
      await control.breathe?.();
    }
    return {
      rows: taken.length,
      columns: names.length,
      encoding: guessEncoding(bytes).encoding,
      partial: taken.length < rows.length,
      notices: notices.list(),
    };
  }
  const take = new RecordTaker(file, records, mostRows, taker);
  const reader = new JsonReader(file, (token) => take.take(token));
  let encoding: string = guessEncoding(bytes).encoding;
  let partial = false;
  for await (const part of decoded(opened.open(), guessEncoding(bytes).encoding, (to) => {
    if (to !== 'damaged') encoding = to;
    notices.add(undefined, 'some bytes are not valid UTF-8', 'encoding');
  })) {
    reader.write(part);
    control.progress?.(file, opened.consumed(), take.count);
    await control.breathe?.();
    if (take.done) {
      partial = true;
      break;
    }
  }
  if (!partial) reader.end();
  take.flush();
  if (!take.found)
    throw new InputError({
      file,
      says: 'the document holds no record; bring a list of records, each {"name": value, …}',
    });
  if (take.names.length === 0)
    throw new InputError({ file, says: 'the records have no names; there is nothing to read' });
  for (const key of take.repeated)
    notices.add(undefined, `a record names “${key}” twice; its last value counts`, 'names');
  return { rows: take.count, columns: take.names.length, encoding, partial, notices: notices.list() };
}
