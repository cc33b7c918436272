import { textsToBinary, toBinary, type BinaryColumn, type BinaryTexts } from '../extract/binary-column';
import type { ColumnPass, Form } from '../extract/extract';
import { InputError, type Problem } from '../extract/problem';
import type { Spans } from '../extract/cells-in-bytes';
import { ColumnTakers, type Holds } from './takers';

/** A column that was taken elsewhere, as it is given back. */
export interface GivenBack {
  name: string;
  column: BinaryColumn;
  pass: (Omit<ColumnPass, 'texts'> & { texts: BinaryTexts }) | null;
}

/**
 * Takes columns in another thread, told the same in the same order as `Columns` is. What stands in the way is an answer, of the
 * first that could not be taken; a thread that ended is a `HelperLost`.
 */
export interface Helper {
  start(holds: Holds): Promise<void>;
  expect(rows: number, columns: number): Promise<void>;
  begin(file: string, names: readonly (string | null)[]): Promise<void>;
  /** @param cells in memory that both threads see, which stays as it is until the answer */
  take(cells: Spans): Promise<Problem | null>;
  endFile(): Promise<void>;
  finish(): Promise<GivenBack[]>;
}

/** Thrown where the thread of a helper ended: what it took has to be read once more. */
export class HelperLost extends Error {
  constructor(why: string) {
    super(`a second thread that read along has ended: ${why}`);
    this.name = 'HelperLost';
  }
}

/** What a helper does, in the thread where it does it. */
export class HelperAtWork {
  private columns = new ColumnTakers({ hold: 'all' });
  private problem: Problem | null = null;

  start(holds: Holds): void {
    this.columns = new ColumnTakers(holds);
    this.problem = null;
  }
  expect(rows: number, columns: number): void {
    this.columns.expect(rows, columns);
  }
  begin(file: string, names: readonly (string | null)[]): void {
    this.columns.begin(file, names);
  }
  take(cells: Spans): Problem | null {
    try {
      if (!this.problem) this.columns.take(cells);
    } catch (cause) {
      if (!(cause instanceof InputError)) throw cause;
      this.problem = cause.problem;
    }
    return this.problem;
  }
  endFile(): void {
    this.columns.endFile();
  }
  finish(): GivenBack[] {
    const given = this.columns.finished.map(([name, column, pass]): GivenBack => ({
      name,
      column: toBinary(column),
      pass: pass && { ...pass, texts: textsToBinary(pass.texts) },
    }));
    this.columns = new ColumnTakers({ hold: 'all' });
    return given;
  }
}

/** Of so many bytes of text on it is worth starting a helper. */
const LEAST_BYTES = 12e6;
/** Bytes of text in a packed byte, about. */
const UNPACKED = 6;

/** Whether a helper makes reading files faster: finding cells has to take less time than what is done with them. */
export const isWorthHelp = (files: readonly { bytes: number; packed: boolean; form: Form }[]): boolean =>
  files.every(({ form }) => form === 'delimited') &&
  files.reduce((sum, { bytes, packed }) => sum + bytes * (packed ? UNPACKED : 1), 0) >= LEAST_BYTES;
