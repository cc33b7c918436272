import { ColumnBuilder, type Column } from '../extract/column';
import { TooLong } from '../extract/dictionary';
import type { ColumnPass, FileSource } from '../extract/extract';
import { InputError } from '../extract/problem';
import type { Spans } from '../extract/cells-in-bytes';
import type { Hold } from './holding';
import { PassBuilder, sampleOf, Sampler, textsOf, type CellTaker } from './pass';

/** Rows that come together: their cells as texts, row by row, or where they lie in bytes. */
export type Batch = readonly (readonly string[])[] | Spans;

/** A column that is complete, and where only a sample of it is held what all rows told. */
export type Finished = [name: string, column: Column, pass: ColumnPass | null];

/** How rows are held, and the bounds of a sample: by default what a table of its width has room for. */
export interface Holds {
  hold: Hold;
  bounds?: { rows: number; texts: number };
}

/** What takes the columns of an extract while its files are read. */
export interface Columns {
  /** Before the first file is read: how many rows and columns are to be expected in all. */
  expect(rows: number, columns: number): void;
  /** The columns of the file that comes, in its order; `null` for one that is not taken. */
  begin(file: string, names: readonly (string | null)[]): void;
  /** @throws InputError where there is more in a column than it has room for */
  take(batch: Batch): void;
  /** What a file lacks is blank in its rows. */
  endFile(): void;
}

/** The columns of an extract while its files are read: all rows are held, or a sample of them while all are counted. */
export class ColumnTakers implements Columns {
  private readonly takers = new Map<string, CellTaker>();
  private sampler: Sampler | null = null;
  private texts = 0;
  private file = '';
  private width = 0;
  /** Those of the file at hand. */
  private here: { name: string; taker: CellTaker; index: number }[] = [];
  /** Rows that were read. */
  rows = 0;

  constructor(private readonly holds: Holds) {}

  expect(rows: number, columns: number): void {
    const { hold, bounds } = this.holds;
    if (hold === 'all' || this.sampler) return;
    this.sampler = new Sampler(rows, bounds?.rows ?? sampleOf(columns));
    this.texts = bounds?.texts ?? textsOf(columns);
  }

  begin(file: string, names: readonly (string | null)[]): void {
    this.file = file;
    this.width = names.length;
    this.here = names.flatMap((name, index) =>
      name === null ? [] : [{ name, taker: this.taker(name), index }],
    );
  }

  /** Of a column, which files before this one need not have had. */
  private taker(name: string): CellTaker {
    const known = this.takers.get(name);
    if (known) return known;
    const taker = this.sampler ? new PassBuilder(this.sampler, this.texts) : new ColumnBuilder();
    taker.pushBlank(this.rows);
    this.takers.set(name, taker);
    return taker;
  }

  take(batch: Batch): void {
    this.pass('rows' in batch ? batch.rows : batch.length);
    for (const { name, taker, index } of this.here)
      try {
        if ('rows' in batch) taker.pushSpans({ ...batch, first: index, step: this.width });
        else taker.pushFrom(batch, index);
      } catch (cause) {
        if (!(cause instanceof TooLong)) throw cause;
        throw new InputError({ file: this.file, element: name, says: cause.message });
      }
  }

  /** Rows come: before their cells do it is settled which of them are held. */
  private pass(rows: number): void {
    const stay = this.sampler?.next(rows);
    if (stay) for (const taker of this.takers.values()) if (taker instanceof PassBuilder) taker.thin(stay);
    this.rows += rows;
  }

  endFile(): void {
    this.here = [];
    for (const taker of this.takers.values())
      if (taker.rows < this.rows) taker.pushBlank(this.rows - taker.rows);
  }

  /** Rows that are held. */
  get held(): number {
    return this.sampler ? this.sampler.places.length : this.rows;
  }

  /** Their zero-based places among all rows. */
  get places(): Uint32Array {
    return Uint32Array.from(this.sampler?.places ?? []);
  }

  /** Files with the rows of each that are held. */
  filesHeld(files: readonly FileSource[]): FileSource[] {
    if (!this.sampler) return [...files];
    const { places } = this.sampler;
    let [begin, at] = [0, 0];
    return files.map((file) => {
      begin += file.rows;
      const first = at;
      while (at < places.length && places[at] < begin) at++;
      return { ...file, rows: at - first, read: file.rows };
    });
  }

  get finished(): Finished[] {
    return [...this.takers].map(([name, taker]) => [
      name,
      taker.finish(),
      taker instanceof PassBuilder ? taker.told : null,
    ]);
  }
}
