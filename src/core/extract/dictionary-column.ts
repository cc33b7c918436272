import type { Coding, Lifted } from './coding';
import { NumberTexts, textAt, type TextList } from './text-list';

/** Row codes are kept in the narrowest integers that hold them. */
export type Codes = Uint8Array | Uint16Array | Uint32Array;

/** Each distinct text once; rows hold small integers into them. */
export class DictionaryColumn {
  readonly form = 'dictionary';
  /** @param texts distinct raw texts; @param codes one index into `texts` per row */
  constructor(
    readonly texts: TextList,
    readonly codes: Codes,
  ) {}
  get rows(): number {
    return this.codes.length;
  }
  /** Raw text of a zero-based row. */
  text(row: number): string {
    return textAt(this.texts, this.codes[row]);
  }
  /**
   * What is read of texts, for each row; each distinct text is read once.
   * @param number what a number comes to that can be written in one way alone, where that is the same for all: none is read then
   */
  lift<T>(read: (text: string) => T, number?: T): (row: number) => T {
    const { texts, codes } = this;
    const known =
      number !== undefined && texts instanceof NumberTexts ? texts.mapOdd(read, number) : texts.map(read);
    return (row) => known[codes[row]];
  }
  /** A number of 32 bits for each row, the same for equal cells. */
  get keys(): (row: number) => number {
    const { codes } = this;
    return (row) => codes[row];
  }
  /** The digits of a zero-based row's number, where the column holds numbers that are all written alike; else NaN. */
  digits(row: number): number {
    const { texts, codes } = this;
    return texts instanceof NumberTexts ? texts.digits[codes[row]] : NaN;
  }
  /** Whether two zero-based rows hold the same text. */
  isSame(row: number, other: number): boolean {
    return this.codes[row] === this.codes[other];
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
  get distinct(): TextList | null {
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
