import type { Coding, Lifted } from './coding';
import { DictionaryColumn } from './dictionary-column';
import { FirstRows, hashIn, isSameIn, textsOfRows } from './packed-texts';
import { BETWEEN_PULSES, pulse } from './pulse';

const decoder = new TextDecoder('utf-8', { ignoreBOM: true });

/** For columns with very many distinct texts: the UTF-8 bytes of all cells one after the other. */
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
  lift<T>(read: (text: string) => T, number?: T): (row: number) => T {
    return this.made ? this.made.lift(read, number) : (row) => read(this.text(row));
  }
  /**
   * The same cells with each distinct text once: what counts and compares them looks at small integers. Made when it is first
   * asked for, and kept. @throws TooManyDistinct
   */
  get listed(): DictionaryColumn {
    return (this.made ??= this.list());
  }
  private list(): DictionaryColumn {
    const { bytes, ends } = this;
    const found = new FirstRows(bytes, ends);
    const codes = new Uint32Array(this.rows);
    for (let row = 0; row < codes.length; row++) {
      if ((row & (BETWEEN_PULSES - 1)) === 0) pulse();
      codes[row] = found.code(row);
    }
    return new DictionaryColumn(textsOfRows(bytes, ends, found.rows), codes);
  }
  get keys(): (row: number) => number {
    if (this.made) return this.made.keys;
    const { bytes, ends } = this;
    return (row) => hashIn(bytes, row === 0 ? 0 : ends[row - 1], ends[row]);
  }
  digits(row: number): number {
    return this.made ? this.made.digits(row) : NaN;
  }
  isSame(row: number, other: number): boolean {
    if (this.made) return this.made.isSame(row, other);
    return isSameIn(this.bytes, this.ends, row, other);
  }
  coding(size: number, categoryOf: (text: string) => number): Coding {
    return this.listed.coding(size, categoryOf);
  }
  numbers(read: (text: string) => number): Lifted {
    return this.listed.numbers(read);
  }
  get distinct(): null {
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
