import type { CellsInBytes } from './cells-in-bytes';
import { digitsIn } from './digits';
import { Dictionary, MOST_BYTES, TooLong } from './dictionary';
import { DictionaryColumn, type Codes } from './dictionary-column';
import { NumberColumn, ODD } from './number-column';
import { PackedColumn } from './packed-column';

/** The cells of a column while they come, in one of the forms in which a column keeps them. */
export interface GrowingCells {
  readonly rows: number;
  /** Makes room for so many more. */
  room(more: number): void;
  push(source: Uint8Array, from: number, to: number): void;
  /** Takes cells, up to one after which they need another form. @returns how many */
  pushSpans(cells: CellsInBytes): number;
  /** The same cells in another form, where this one suits them no more. */
  readonly fitting: GrowingCells | null;
  finish(): DictionaryColumn | NumberColumn | PackedColumn;
}

/** Distinct texts above which a dictionary must earn its keep. */
const DICTIONARY_LIMIT = 1 << 18;
/** Above the limit, a dictionary whose texts repeat less than this often on average is given up. */
const LEAST_REPETITION = 2;
/** Different texts that a column of numbers may hold beside them. */
const MOST_ODD = 1 << 10;

/** Each distinct text once. */
export class CodedCells implements GrowingCells {
  private readonly dictionary = new Dictionary();
  private codes: Codes = new Uint8Array(1024);
  private length = 0;
  private isSpent = false;

  get rows(): number {
    return this.length;
  }
  room(more: number): void {
    this.codes = withRoom(this.codes, this.length + more);
  }
  push(source: Uint8Array, from: number, to: number): void {
    this.pushCode(this.dictionary.code(source, from, to));
  }
  pushSpans(cells: CellsInBytes): number {
    const { rows } = cells;
    if (found.length < rows) found = new Int32Array(rows * 2);
    this.dictionary.codes(cells, found);
    let row = 0;
    while (row < rows && !this.isSpent) this.pushCode(found[row++]);
    return row;
  }
  get fitting(): GrowingCells | null {
    if (!this.isSpent) return null;
    const { dictionary, codes, length } = this;
    const numbers = dictionary.numbersOf(MOST_ODD);
    return numbers
      ? NumberCells.from(codes.subarray(0, length), numbers.digits, numbers.decimals, (code) =>
          dictionary.bytesOf(code),
        )
      : PackedCells.from(length, (row) => dictionary.bytesOf(codes[row]));
  }
  finish(): DictionaryColumn {
    return new DictionaryColumn(this.dictionary.texts(), this.codes.slice(0, this.length));
  }

  private pushCode(code: number): void {
    if (code === 0x100 || code === 0x10000) this.widen(code);
    this.codes[this.length++] = code;
    if (code >= DICTIONARY_LIMIT && code * LEAST_REPETITION > this.length) this.isSpent = true;
  }
  private widen(code: number): void {
    if (code === 0x100 && this.codes instanceof Uint8Array) this.codes = Uint16Array.from(this.codes);
    else if (code === 0x10000 && !(this.codes instanceof Uint32Array))
      this.codes = Uint32Array.from(this.codes);
  }
}

/** Codes of the cells at hand, for the next that come. */
let found = new Int32Array(1 << 12);

/** Numbers that are all written alike, and few other texts. */
class NumberCells implements GrowingCells {
  private readonly odd = new Dictionary();
  private length = 0;

  private constructor(
    private cells: Float64Array,
    private readonly decimals: number,
  ) {}

  static from(
    codes: Codes,
    digits: Float64Array,
    decimals: number,
    bytesOf: (code: number) => Uint8Array,
  ): NumberCells {
    const made = new NumberCells(new Float64Array(codes.length * 2), decimals);
    for (let row = 0; row < codes.length; row++) {
      const cell = digits[codes[row]];
      if (cell === cell) made.cells[made.length++] = cell;
      else {
        const bytes = bytesOf(codes[row]);
        made.push(bytes, 0, bytes.length);
      }
    }
    return made;
  }

  get rows(): number {
    return this.length;
  }
  room(more: number): void {
    this.cells = withRoom(this.cells, this.length + more);
  }
  push(source: Uint8Array, from: number, to: number): void {
    const digits = to === from ? NaN : digitsIn(source, from, to, this.decimals);
    this.cells[this.length++] = digits === digits ? digits : ODD + this.odd.code(source, from, to);
  }
  pushSpans({ bytes, starts, ends, first, step, rows }: CellsInBytes): number {
    let row = 0;
    for (let i = first; row < rows && this.odd.size <= MOST_ODD; row++, i += step)
      this.push(bytes, starts[i], ends[i]);
    return row;
  }
  get fitting(): GrowingCells | null {
    if (this.odd.size <= MOST_ODD) return null;
    const column = this.finish();
    return PackedCells.from(this.length, (row) => encoder.encode(column.text(row)));
  }
  finish(): NumberColumn {
    return new NumberColumn(this.cells.slice(0, this.length), this.decimals, [...this.odd.texts()]);
  }
}

const encoder = new TextEncoder();

/** The bytes of all cells. */
class PackedCells implements GrowingCells {
  private bytes = new Uint8Array(1 << 16);
  private ends = new Uint32Array(1024);
  private used = 0;
  private length = 0;

  static from(rows: number, bytesOf: (row: number) => Uint8Array): PackedCells {
    const made = new PackedCells();
    made.room(rows);
    for (let row = 0; row < rows; row++) {
      const bytes = bytesOf(row);
      made.push(bytes, 0, bytes.length);
    }
    return made;
  }

  readonly fitting = null;
  get rows(): number {
    return this.length;
  }
  room(more: number): void {
    this.ends = withRoom(this.ends, this.length + more);
  }
  push(source: Uint8Array, from: number, to: number): void {
    const used = this.used + to - from;
    if (used > this.bytes.length) {
      if (used > MOST_BYTES) throw new TooLong();
      const larger = new Uint8Array(Math.min(Math.max(used, this.bytes.length * 2), MOST_BYTES));
      larger.set(this.bytes.subarray(0, this.used));
      this.bytes = larger;
    }
    for (let i = from; i < to; i++) this.bytes[this.used++] = source[i];
    this.ends[this.length++] = this.used;
  }
  pushSpans({ bytes, starts, ends, first, step, rows }: CellsInBytes): number {
    for (let row = 0, i = first; row < rows; row++, i += step) this.push(bytes, starts[i], ends[i]);
    return rows;
  }
  finish(): PackedColumn {
    return new PackedColumn(this.bytes.slice(0, this.used), this.ends.slice(0, this.length));
  }
}

/** The same numbers in an array of at least so many. */
function withRoom<T extends Codes | Float64Array>(array: T, length: number): T {
  if (length <= array.length) return array;
  const Kind = array.constructor as { new (n: number): T };
  const larger = new Kind(Math.max(length, array.length * 2));
  larger.set(array);
  return larger;
}
