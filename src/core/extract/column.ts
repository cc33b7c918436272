import { without, type CellsInBytes } from './cells-in-bytes';
import type { Coding } from './coding';
import type { DictionaryColumn } from './dictionary-column';
import { CodedCells, type GrowingCells } from './growing-cells';
import type { NumberColumn } from './number-column';
import type { PackedColumn } from './packed-column';
import { TextBytes } from './text-bytes';

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
      this.pushText(row[index] ?? '');
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
    for (let row = from; row < to; row++) this.pushText(column.text(row));
  }

  /** Takes `times` empty cells: a file that lacks the column. */
  pushBlank(times: number): void {
    this.room(times);
    for (let i = 0; i < times; i++) this.push(scratch.bytes, 0, 0);
  }

  finish(): Column {
    return this.cells.finish();
  }

  private pushText(text: string): void {
    const { bytes, length } = scratch.put(text);
    this.push(bytes, 0, length);
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

/** The one text that is being looked up. */
const scratch = new TextBytes();

/** A column from a list of raw texts. */
export function columnOf(texts: readonly string[]): Column {
  const builder = new ColumnBuilder();
  builder.pushFrom(
    texts.map((text) => [text]),
    0,
  );
  return builder.finish();
}
