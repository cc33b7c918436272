import { Dictionary } from '../extract/dictionary';
import type { Spans } from '../extract/cells-in-bytes';

/** A batch of rows of one file that pass by, before any of them is taken. */
export class PassingRows {
  /**
   * @param first zero-based place of the first of them among all rows @param file zero-based place of their file
   * @param names of the columns @param cells as texts, row by row, or where they lie in bytes
   */
  constructor(
    readonly first: number,
    readonly file: number,
    private readonly names: readonly string[],
    private readonly cells: readonly (readonly string[])[] | Spans,
  ) {}

  get rows(): number {
    return 'rows' in this.cells ? this.cells.rows : this.cells.length;
  }

  /** Gives the cells of a column one by one as bytes; `false` where the file has none of that name. */
  each(name: string, take: (source: Uint8Array, from: number, to: number, row: number) => void): boolean {
    const { cells, names } = this;
    const index = names.indexOf(name);
    if (index < 0) return false;
    if ('rows' in cells) {
      const { bytes, starts, ends, rows } = cells;
      for (let row = 0, i = index; row < rows; row++, i += names.length) take(bytes, starts[i], ends[i], row);
    } else
      cells.forEach((row, i) => {
        const bytes = encoder.encode(row[index] ?? '');
        take(bytes, 0, bytes.length, i);
      });
    return true;
  }

  /** The text of a cell; `null` where the file has no such column. @param row zero-based, of the batch */
  text(name: string, row: number): string | null {
    const { cells, names } = this;
    const index = names.indexOf(name);
    if (index < 0) return null;
    if (!('rows' in cells)) return cells[row][index] ?? '';
    const at = row * names.length + index;
    return decoder.decode(cells.bytes.subarray(cells.starts[at], cells.ends[at]));
  }

  /** Only some of the rows. @param at their zero-based places in the batch, ascending */
  only(at: readonly number[]): readonly (readonly string[])[] | Spans {
    const { cells, names } = this;
    if (!('rows' in cells)) return at.map((row) => cells[row]);
    const width = names.length;
    const [starts, ends] = [new Uint32Array(at.length * width), new Uint32Array(at.length * width)];
    at.forEach((row, i) => {
      starts.set(cells.starts.subarray(row * width, (row + 1) * width), i * width);
      ends.set(cells.ends.subarray(row * width, (row + 1) * width), i * width);
    });
    return { bytes: cells.bytes, starts, ends, rows: at.length };
  }
}

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });

/** Different texts of a column that are known by a code; others are read anew for each row. */
const MOST_KNOWN = 200_000;

/** The cells of one variable of the rows at hand, each different text read once. */
export class PassingCells {
  private readonly dictionary = new Dictionary(MOST_KNOWN);
  private readonly known: string[] = [];
  private codes = new Int32Array(0);
  /** Texts of the rows at hand that are known by no code. */
  private readonly others = new Map<number, string>();

  /** @param name of the column @param without what rows of a file hold that has no such column */
  constructor(
    private readonly name: string,
    private readonly without: (file: number) => string = () => '',
  ) {}

  /** Takes the cells of a batch. */
  next(batch: PassingRows): void {
    this.others.clear();
    if (this.codes.length < batch.rows) this.codes = new Int32Array(batch.rows);
    const { codes, dictionary, known, others } = this;
    const take = (source: Uint8Array, from: number, to: number, row: number): void => {
      const code = dictionary.code(source, from, to);
      codes[row] = code;
      if (code < 0) others.set(row, decoder.decode(source.subarray(from, to)));
      else if (code === known.length) known.push(decoder.decode(source.subarray(from, to)));
    };
    if (batch.each(this.name, take)) return;
    const bytes = encoder.encode(this.without(batch.file));
    for (let row = 0; row < batch.rows; row++) take(bytes, 0, bytes.length, row);
  }

  /** The texts of the rows of the batch at hand. */
  get texts(): (row: number) => string {
    return (row) => {
      const code = this.codes[row];
      return code < 0 ? (this.others.get(row) ?? '') : this.known[code];
    };
  }

  /** What the text of a zero-based row of the batch comes to; each different text is asked once. */
  asking(of: (text: string) => number): (row: number) => number {
    const { known: texts, others } = this;
    const made: number[] = [];
    return (row) => {
      const code = this.codes[row];
      if (code < 0) return of(others.get(row) ?? '');
      // Codes come in order of their first row, but not every row is asked for.
      return (made[code] ??= of(texts[code]));
    };
  }
}
