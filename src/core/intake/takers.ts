import { ColumnBuilder, type Column } from '../extract/column';
import type { ColumnPass, FileSource } from '../extract/extract';
import type { Hold } from './holding';
import { PassBuilder, sampleOf, Sampler, textsOf, type CellTaker } from './pass';

/** The columns of an extract while its files are read: all rows are held, or a sample of them while all are counted. */
export class ColumnTakers {
  private readonly takers = new Map<string, CellTaker>();
  private sampler: Sampler | null = null;
  private texts = 0;
  /** Rows that were read. */
  rows = 0;

  /** @param bounds of a sample; by default what a table of its width has room for */
  constructor(
    private readonly hold: Hold,
    private readonly bounds: { rows: number; texts: number } | undefined,
  ) {}

  /** Before the first file is read: how many rows and columns are to be expected in all. */
  expect(rows: number, columns: number): void {
    if (this.hold === 'all' || this.sampler) return;
    this.sampler = new Sampler(rows, this.bounds?.rows ?? sampleOf(columns));
    this.texts = this.bounds?.texts ?? textsOf(columns);
  }

  get names(): string[] {
    return [...this.takers.keys()];
  }
  of(name: string): CellTaker | undefined {
    return this.takers.get(name);
  }

  /** A column that files before this one need not have had. */
  add(name: string): void {
    if (this.takers.has(name)) return;
    const taker = this.sampler ? new PassBuilder(this.sampler, this.texts) : new ColumnBuilder();
    taker.pushBlank(this.rows);
    this.takers.set(name, taker);
  }

  /** Rows come: before their cells do it is settled which of them are held. */
  pass(rows: number): void {
    const stay = this.sampler?.next(rows);
    if (stay) for (const taker of this.takers.values()) if (taker instanceof PassBuilder) taker.thin(stay);
    this.rows += rows;
  }

  /** What a file lacks is blank in its rows. */
  endFile(): void {
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

  /** Each column, and where only a sample of it is held what all rows told. */
  get finished(): [name: string, column: Column, pass: ColumnPass | null][] {
    return [...this.takers].map(([name, taker]) => [
      name,
      taker.finish(),
      taker instanceof PassBuilder ? taker.told : null,
    ]);
  }
}
