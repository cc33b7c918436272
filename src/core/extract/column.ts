import { without, type CellsInBytes } from './cells-in-bytes';
import type { Coding } from './coding';
import type { DictionaryColumn } from './dictionary-column';
import { CodedCells, type GrowingCells } from './growing-cells';
import type { NumberColumn } from './number-column';
import type { PackedColumn } from './packed-column';

/**
 * A column keeps every raw text of its cells exactly, in one of three forms:
 *
 * - `dictionary`: each distinct text once; rows hold small integers into it;
 * - `numbers`: for columns with very many distinct numbers that are written alike, the digits of each row;
 * - `packed`: for columns with very many distinct texts, the UTF-8 bytes of all cells one after the other.
 *
 * All answer the same questions. Only what keeps and restores columns needs to know which form it is.
 */
export type Column = DictionaryColumn | NumberColumn | PackedColumn;

const encoder = new TextEncoder();

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

/** Collects the cells of one column in file order and ends as the form that suits them. */
export class ColumnBuilder {
  private cells: GrowingCells = new CodedCells();
  /** Rows that there is room for. */
  private due = 0;

  get rows(): number {
    return this.cells.rows;
  }

  /** Takes the cell at `index` of each row; a row too short gives an empty cell. */
  pushFrom(rows: readonly (readonly string[])[], index: number): void {
    this.room(rows.length);
    for (const row of rows) {
      const text = row[index] ?? '';
      this.push(scratchOf(text), 0, scratchLength);
    }
  }

  /** Takes cells where they lie. */
  pushSpans(cells: CellsInBytes): void {
    this.room(cells.rows);
    let taken = 0;
    while (taken < cells.rows) {
      taken += this.cells.pushSpans(taken === 0 ? cells : without(cells, taken));
      this.settle();
    }
  }

  /** Takes some of the cells. @param at zero-based rows of them */
  pushSome({ bytes, starts, ends, first, step }: CellsInBytes, at: readonly number[]): void {
    this.room(at.length);
    for (const row of at) this.push(bytes, starts[first + row * step], ends[first + row * step]);
  }

  /** Takes the cells of another column from zero-based row `from` up to but not including `to`. */
  pushColumn(column: Column, from = 0, to = column.rows): void {
    this.room(to - from);
    for (let row = from; row < to; row++) {
      const text = column.text(row);
      this.push(scratchOf(text), 0, scratchLength);
    }
  }

  /** Takes `times` empty cells: a file that lacks the column. */
  pushBlank(times: number): void {
    this.room(times);
    for (let i = 0; i < times; i++) this.push(scratch, 0, 0);
  }

  finish(): Column {
    return this.cells.finish();
  }

  private push(source: Uint8Array, from: number, to: number): void {
    this.cells.push(source, from, to);
    this.settle();
  }

  private room(more: number): void {
    this.due = this.rows + more;
    this.cells.room(more);
  }

  /** Goes on in another form, where this one suits the cells no more. */
  private settle(): void {
    const { fitting } = this.cells;
    if (!fitting) return;
    fitting.room(this.due - fitting.rows);
    this.cells = fitting;
  }
}

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
