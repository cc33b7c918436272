import type { Notice } from '../extract/extract';
import type { Storage } from '../extract/words';
import type { Spans } from '../extract/cells-in-bytes';

/** Takes the rows of one file: the names first, once, then batches of rows in file order. */
export interface RowTaker {
  /** @param declared how the file itself declares the columns to be written, where its form does */
  names(names: string[], declared?: (Storage | undefined)[]): void;
  rows(rows: string[][]): void;
  /** Rows that lie in the bytes of a piece, each with as many cells as there are names; to be taken at once. */
  spans(spans: Spans): void;
}

/** What reading one file came to. */
export interface FileRead {
  rows: number;
  columns: number;
  encoding: string;
  /** Whether rows were left unread, since only the first were wanted. */
  partial: boolean;
  lines?: [row: number, line: number][];
  /** Some rows with the byte at which each begins, the first among them, where rows stand in the file as they are read. */
  begins?: [row: number, byte: number][];
  /** What the file carries of its variables beside the data, as a handoff wrote it: JSON. */
  carried?: string;
  notices: Notice[];
}
