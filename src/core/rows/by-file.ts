import { codingOfStretches } from '../extract/coding';
import type { Column } from '../extract/column';
import type { FileSource } from '../extract/extract';
import { fileStarts } from '../extract/files';
import { crossed } from './counting';

/** Rows of one file that hold something, of all its rows. */
export interface InFile {
  wave: string;
  holding: number;
  rows: number;
}

/** For each file, in the order of the rows, how many of its rows hold one of these texts. */
export function heldByFile(column: Column, files: readonly FileSource[], texts: readonly string[]): InFile[] {
  const held = new Set(texts);
  const counts = countedByFile(column, files, (text) => held.has(text));
  return files.map(({ name, wave, rows }, i) => ({ wave: wave ?? name, holding: counts[i], rows }));
}

/** Zero-based places of the files in which a column holds anything that is so. */
export function filesWhere(
  column: Column,
  files: readonly FileSource[],
  is: (text: string) => boolean,
): number[] {
  const counts = countedByFile(column, files, is);
  return files.flatMap((_, i) => (counts[i] > 0 ? [i] : []));
}

/** Rows of each file whose text is so. */
const countedByFile = (
  column: Column,
  files: readonly FileSource[],
  is: (text: string) => boolean,
): Float64Array =>
  crossed(column.rows, [
    codingOfStretches(fileStarts(files), column.rows),
    column.coding(1, (text) => (is(text) ? 0 : -1)),
  ]).sums;
