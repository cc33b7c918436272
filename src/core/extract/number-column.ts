import type { Coding, Lifted } from './coding';
import { digitsIn, writtenDigits } from './digits';
import { DictionaryColumn } from './dictionary-column';
import { placeIn } from './sorted';
import { NumberTexts } from './text-list';
import { mustBeFew } from './too-many';

/** From here on what a row holds is no number but the place of an odd text: no number of fifteen digits is as large. */
export const ODD = 2 ** 52;

const encoder = new TextEncoder();

/** Distinct cells of a column of numbers, numbers ascending, then odd texts, with the rows of each. */
interface Distinct {
  /** Digits, or places of odd texts. */
  cells: Float64Array;
  texts: NumberTexts;
  counts: Float64Array;
}

/** For columns with very many distinct numbers that are all written alike: the digits of each row, without a text. */
export class NumberColumn {
  readonly form = 'numbers';
  private known: Distinct | null = null;
  private made: DictionaryColumn | null = null;

  /**
   * @param cells for each row the digits as one whole number, or `ODD` and the place of an odd text
   * @param decimals how many of the digits stand behind the point @param odd texts that are no such numbers
   */
  constructor(
    readonly cells: Float64Array,
    readonly decimals: number,
    readonly odd: readonly string[],
  ) {}

  get rows(): number {
    return this.cells.length;
  }
  /** Raw text of a zero-based row. */
  text(row: number): string {
    const cell = this.cells[row];
    return cell < ODD ? writtenDigits(cell, this.decimals) : this.odd[cell - ODD];
  }
  lift<T>(read: (text: string) => T, number?: T): (row: number) => T {
    if (this.made) return this.made.lift(read, number);
    const odd = this.odd.map(read);
    const { cells, decimals } = this;
    if (number !== undefined) return (row) => (cells[row] < ODD ? number : odd[cells[row] - ODD]);
    return (row) => {
      const cell = cells[row];
      return cell < ODD ? read(writtenDigits(cell, decimals)) : odd[cell - ODD];
    };
  }
  /** What a text would be kept as; NaN where it is neither such a number nor one of the odd texts. */
  cellOf(text: string): number {
    const bytes = encoder.encode(text);
    const digits = digitsIn(bytes, 0, bytes.length, this.decimals);
    if (digits === digits) return digits;
    const place = this.odd.indexOf(text);
    return place < 0 ? NaN : ODD + place;
  }
  /** Distinct cells with their rows, by sorting; made when it is first asked for, and kept. @throws TooManyDistinct */
  get tallied(): Pick<Distinct, 'texts' | 'counts'> {
    return this.distinctCells;
  }
  private get distinctCells(): Distinct {
    return (this.known ??= distinctOf(this.cells, this.decimals, this.odd));
  }
  /** The same cells with each distinct text once; made when it is first asked for, and kept. @throws TooManyDistinct */
  get listed(): DictionaryColumn {
    if (this.made) return this.made;
    const { cells, texts } = this.distinctCells;
    return (this.made = new DictionaryColumn(
      texts,
      Uint32Array.from(this.cells, (cell) => placeIn(cells, cell)),
    ));
  }
  get keys(): (row: number) => number {
    const { cells } = this;
    return (row) => cells[row] ^ Math.imul(cells[row] / 2 ** 32, 0x85ebca6b);
  }
  digits(row: number): number {
    return this.cells[row] < ODD ? this.cells[row] : NaN;
  }
  isSame(row: number, other: number): boolean {
    return this.cells[row] === this.cells[other];
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
  gather(rows: Uint32Array): NumberColumn {
    const cells = new Float64Array(rows.length);
    for (let i = 0; i < rows.length; i++) cells[i] = this.cells[rows[i]];
    return new NumberColumn(cells, this.decimals, this.odd);
  }
}

/** Columns that come in order without a repeat, as sequences and points in time mostly do, are their own distinct cells. */
function distinctOf(of: Float64Array, decimals: number, odd: readonly string[]): Distinct {
  const order = orderOf(of);
  if (order === 'rising' && odd.length === 0) {
    mustBeFew(of.length, 'numbers');
    return {
      cells: of,
      texts: new NumberTexts(of, decimals, new Map()),
      counts: new Float64Array(of.length).fill(1),
    };
  }
  const sorted = of.slice();
  if (order === 'any') sorted.sort();
  const counts = new Float64Array(sorted.length);
  let n = 0;
  for (let i = 0; i < sorted.length; i++) {
    if (n === 0 || sorted[i] !== sorted[n - 1]) sorted[n++] = sorted[i];
    counts[n - 1]++;
  }
  mustBeFew(n, 'numbers');
  const cells = sorted.slice(0, n);
  const digits = odd.length > 0 ? cells.slice() : cells;
  const texts = new Map<number, string>();
  for (let i = n - 1; i >= 0 && cells[i] >= ODD; i--) {
    texts.set(i, odd[cells[i] - ODD]);
    digits[i] = NaN;
  }
  return { cells, texts: new NumberTexts(digits, decimals, texts), counts: counts.slice(0, n) };
}

/** Whether each number is larger than the one before, or none is smaller, or neither. */
function orderOf(numbers: Float64Array): 'rising' | 'level' | 'any' {
  let order: 'rising' | 'level' = 'rising';
  for (let i = 1; i < numbers.length; i++)
    if (numbers[i] <= numbers[i - 1]) {
      if (numbers[i] < numbers[i - 1]) return 'any';
      order = 'level';
    }
  return order;
}
