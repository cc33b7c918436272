import type { Coding, Lifted } from './coding';
import { Dictionary, MOST_BYTES, TooLong } from './dictionary';
import { BETWEEN_PULSES, pulse } from './pulse';

/**
 * A column keeps every raw text of its cells exactly, in one of two forms:
 *
 * - `dictionary`: each distinct text once; rows hold small integers into it;
 * - `packed`: for columns with very many distinct texts, the UTF-8 bytes of all cells one after the other.
 *
 * Both answer the same questions. Only what keeps and restores columns needs to know which form it is.
 */
export type Column = DictionaryColumn | PackedColumn;

/** Row codes are kept in the narrowest integers that hold them. */
export type Codes = Uint8Array | Uint16Array | Uint32Array;

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });

/** More different texts than this take more memory to be told apart than a browser gives; each costs a few hundred bytes. */
const MOST_DISTINCT = 4_000_000;

/** Thrown where a column holds more different texts than can be told apart. */
export class TooManyDistinct extends Error {
  constructor() {
    super(
      `it holds more than ${MOST_DISTINCT / 1_000_000} million different values, more than can be told apart in memory; read the files without it, or only their first rows`,
    );
    this.name = 'TooManyDistinct';
  }
}

export class DictionaryColumn {
  readonly form = 'dictionary';
  /** @param texts distinct raw texts; @param codes one index into `texts` per row */
  constructor(
    readonly texts: readonly string[],
    readonly codes: Codes,
  ) {}
  get rows(): number {
    return this.codes.length;
  }
  /** Raw text of a zero-based row. */
  text(row: number): string {
    return this.texts[this.codes[row]];
  }
  /** What is read of texts, for each row; each distinct text is read once. */
  lift<T>(read: (text: string) => T): (row: number) => T {
    const known = this.texts.map(read);
    const { codes } = this;
    return (row) => known[codes[row]];
  }
  /** Texts as categories. @param categoryOf from 0 up to `size` − 1; −1 for none */
  coding(size: number, categoryOf: (text: string) => number): Coding {
    return { size, codes: this.codes, to: Int32Array.from(this.texts, categoryOf) };
  }
  /** What texts stand for as numbers, for each row. @param read NaN for none */
  numbers(read: (text: string) => number): Lifted {
    return { codes: this.codes, of: Float64Array.from(this.texts, read) };
  }
  /** Distinct raw texts, in the order in which they first appear; `null` where there are too many to be listed. */
  get distinct(): readonly string[] | null {
    return this.texts;
  }
  get listed(): DictionaryColumn {
    return this;
  }
  /** The cells of some rows, as a column of their own; it may list texts that none of them holds. @param rows zero-based */
  gather(rows: Uint32Array): DictionaryColumn {
    const codes = this.codes.slice(0, rows.length);
    for (let i = 0; i < rows.length; i++) codes[i] = this.codes[rows[i]];
    return new DictionaryColumn(this.texts, codes);
  }
}

export class PackedColumn {
  readonly form = 'packed';
  /**
   * @param bytes UTF-8 of all cells; @param ends for each row the offset just past its cell
   * @param made the same cells with each distinct text once, where that is known
   */
  constructor(
    readonly bytes: Uint8Array,
    readonly ends: Uint32Array,
    private made: DictionaryColumn | null = null,
  ) {}
  get rows(): number {
    return this.ends.length;
  }
  /** Raw text of a zero-based row. */
  text(row: number): string {
    return decoder.decode(this.bytes.subarray(row === 0 ? 0 : this.ends[row - 1], this.ends[row]));
  }
  /** Bytes of a zero-based row's text. */
  length(row: number): number {
    return this.ends[row] - (row === 0 ? 0 : this.ends[row - 1]);
  }
  lift<T>(read: (text: string) => T): (row: number) => T {
    return this.made ? this.made.lift(read) : (row) => read(this.text(row));
  }
  /**
   * The same cells with each distinct text once: what counts and compares them looks at small integers. Made when it is first
   * asked for, and kept. @throws TooManyDistinct
   */
  get listed(): DictionaryColumn {
    return (this.made ??= this.list());
  }
  private list(): DictionaryColumn {
    const dictionary = new Dictionary();
    const codes = new Uint32Array(this.rows);
    let from = 0;
    for (let row = 0; row < codes.length; row++) {
      if ((row & (BETWEEN_PULSES - 1)) === 0) {
        pulse();
        if (dictionary.size > MOST_DISTINCT) throw new TooManyDistinct();
      }
      codes[row] = dictionary.code(this.bytes, from, this.ends[row]);
      from = this.ends[row];
    }
    return new DictionaryColumn(dictionary.texts(), codes);
  }
  coding(size: number, categoryOf: (text: string) => number): Coding {
    return this.listed.coding(size, categoryOf);
  }
  numbers(read: (text: string) => number): Lifted {
    return this.listed.numbers(read);
  }
  get distinct(): readonly string[] | null {
    return null;
  }
  gather(rows: Uint32Array): PackedColumn {
    let size = 0;
    for (let i = 0; i < rows.length; i++) size += this.length(rows[i]);
    const bytes = new Uint8Array(size);
    const ends = new Uint32Array(rows.length);
    let used = 0;
    for (let i = 0; i < rows.length; i++) {
      const end = this.ends[rows[i]];
      for (let at = end - this.length(rows[i]); at < end; at++) bytes[used++] = this.bytes[at];
      ends[i] = used;
    }
    return new PackedColumn(bytes, ends, this.made?.gather(rows) ?? null);
  }
}

/** Each distinct text as a category of its own, in the order in which they first appear. @param alike what makes two texts one */
export function codingOfTexts(column: Column, alike: (text: string) => string = (text) => text): Coding {
  const places = new Map<string, number>();
  const made = column.coding(0, (text) => {
    const key = alike(text);
    let place = places.get(key);
    if (place === undefined) places.set(key, (place = places.size));
    return place;
  });
  // How many there are is known only now.
  return { ...made, size: places.size };
}

/** Distinct texts above which a dictionary must earn its keep. */
const DICTIONARY_LIMIT = 1 << 18;
/** Above the limit, a dictionary whose texts repeat less than this often on average is given up. */
const LEAST_REPETITION = 2;

/** Collects the cells of one column in file order and ends as the form that suits them. */
export class ColumnBuilder {
  private dictionary: Dictionary | null = new Dictionary();
  private codes: Codes = new Uint8Array(1024);
  private bytes = new Uint8Array(0);
  private used = 0;
  private length = 0;

  get rows(): number {
    return this.length;
  }

  /** Takes the cell at `index` of each row; a row too short gives an empty cell. */
  pushFrom(rows: readonly (readonly string[])[], index: number): void {
    this.room(this.length + rows.length);
    for (const row of rows) {
      const text = row[index] ?? '';
      this.push(scratchOf(text), 0, scratchLength);
    }
  }

  /**
   * Takes cells that lie in the UTF-8 bytes of a file, without cutting them out: the cell of each of `rows` rows reaches
   * from `starts[i]` up to `ends[i]`, where i begins at `first` and grows by `step`.
   */
  pushSpans(
    source: Uint8Array,
    starts: Uint32Array,
    ends: Uint32Array,
    first: number,
    step: number,
    rows: number,
  ): void {
    this.room(this.length + rows);
    let row = 0;
    if (this.dictionary) {
      if (found.length < rows) found = new Int32Array(rows * 2);
      this.dictionary.codes(source, starts, ends, first, step, rows, found);
      for (; row < rows && this.dictionary; row++) this.pushCode(found[row], this.dictionary);
    }
    for (let i = first + row * step; row < rows; row++, i += step) this.pushBytes(source, starts[i], ends[i]);
  }

  /** Takes the cells of another column from zero-based row `from` up to but not including `to`. */
  pushColumn(column: Column, from = 0, to = column.rows): void {
    this.room(this.length + to - from);
    for (let row = from; row < to; row++) {
      const text = column.text(row);
      this.push(scratchOf(text), 0, scratchLength);
    }
  }

  /** Takes `times` empty cells: a file that lacks the column. */
  pushBlank(times: number): void {
    this.room(this.length + times);
    for (let i = 0; i < times; i++) this.push(scratch, 0, 0);
  }

  finish(): Column {
    if (!this.dictionary)
      return new PackedColumn(
        this.bytes.slice(0, this.used),
        (this.codes as Uint32Array).slice(0, this.length),
      );
    return new DictionaryColumn(this.dictionary.texts(), this.codes.slice(0, this.length));
  }

  private push(source: Uint8Array, from: number, to: number): void {
    const { dictionary } = this;
    if (dictionary) this.pushCode(dictionary.code(source, from, to), dictionary);
    else this.pushBytes(source, from, to);
  }

  private pushCode(code: number, dictionary: Dictionary): void {
    if (code === 0x100 || code === 0x10000) this.widen(code);
    this.codes[this.length++] = code;
    if (code >= DICTIONARY_LIMIT && code * LEAST_REPETITION > this.length) this.giveUpDictionary(dictionary);
  }

  private pushBytes(source: Uint8Array, from: number, to: number): void {
    this.byteRoom(to - from);
    for (let i = from; i < to; i++) this.bytes[this.used++] = source[i];
    this.codes[this.length++] = this.used;
  }

  private widen(code: number): void {
    if (code === 0x100 && this.codes instanceof Uint8Array) this.codes = Uint16Array.from(this.codes);
    else if (code === 0x10000 && !(this.codes instanceof Uint32Array))
      this.codes = Uint32Array.from(this.codes);
  }

  /** From here on the bytes of all cells are kept, those so far among them. */
  private giveUpDictionary(dictionary: Dictionary): void {
    const { codes, length } = this;
    this.dictionary = null;
    this.codes = new Uint32Array(codes.length);
    for (let row = 0; row < length; row++) {
      this.byteRoom(dictionary.length(codes[row]));
      this.used = dictionary.copy(codes[row], this.bytes, this.used);
      this.codes[row] = this.used;
    }
  }

  private byteRoom(more: number): void {
    if (this.used + more <= this.bytes.length) return;
    if (this.used + more > MOST_BYTES) throw new TooLong();
    const room = Math.max(this.used + more, this.bytes.length * 2, 1 << 16);
    const larger = new Uint8Array(Math.min(room, MOST_BYTES));
    larger.set(this.bytes.subarray(0, this.used));
    this.bytes = larger;
  }

  private room(rows: number): void {
    if (rows <= this.codes.length) return;
    const Kind = this.codes.constructor as { new (n: number): Codes };
    const larger = new Kind(Math.max(rows, this.codes.length * 2));
    larger.set(this.codes.subarray(0, this.length));
    this.codes = larger;
  }
}

/** Codes of the cells at hand, for the next that come. */
let found = new Int32Array(1 << 12);

/** Bytes of the one text that is being looked up. */
let scratch = new Uint8Array(1024);
let scratchLength = 0;

/** The UTF-8 bytes of a text, in a buffer that the next call uses again; `scratchLength` tells how many. */
function scratchOf(text: string): Uint8Array {
  if (text.length * 3 > scratch.length) scratch = new Uint8Array(text.length * 6);
  // Most cells are short ASCII, which a plain loop copies faster than a call per cell.
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i);
    if (unit > 0x7f) {
      scratchLength = encoder.encodeInto(text, scratch).written;
      return scratch;
    }
    scratch[i] = unit;
  }
  scratchLength = text.length;
  return scratch;
}

/** A column from a list of raw texts. */
export function columnOf(texts: readonly string[]): Column {
  const builder = new ColumnBuilder();
  builder.pushFrom(
    texts.map((text) => [text]),
    0,
  );
  return builder.finish();
}
