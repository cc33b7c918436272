import type { Column } from './column';
import type { FileSource } from './extract';

/** Rows of one file that hold something, of all its rows. */
export interface InFile {
  wave: string;
  holding: number;
  rows: number;
}

/** For each file, in the order of the rows, how many of its rows hold one of these texts. */
export function heldByFile(column: Column, files: readonly FileSource[], texts: readonly string[]): InFile[] {
  const held = new Set(texts);
  const known = column.form === 'dictionary' ? column.texts.map((text) => held.has(text)) : null;
  const holds =
    column.form === 'dictionary' && known
      ? (row: number): boolean => known[column.codes[row]]
      : (row: number): boolean => held.has(column.text(row));
  let row = 0;
  return files.map(({ name, wave, rows }) => {
    let holding = 0;
    for (const end = row + rows; row < end; row++) if (holds(row)) holding++;
    return { wave: wave ?? name, holding, rows };
  });
}
