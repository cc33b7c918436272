import type { Extract, FileSource } from './extract';

/** Zero-based first row of each file, and after them the number of all rows. */
export function fileStarts(files: readonly Pick<FileSource, 'rows'>[]): number[] {
  const starts = [0];
  for (const { rows } of files) starts.push(starts[starts.length - 1] + rows);
  return starts;
}

/** Where a row was received. */
export interface Stood {
  /** Zero-based place among all rows that were read. */
  place: number;
  /** `null` where the extract knows no files. */
  file: FileSource | null;
  /** Zero-based place in its file. */
  inFile: number;
}

/** Tells of zero-based rows that are held, be they all rows or a sample, where they were received. */
export function standing({ files, pass }: Pick<Extract, 'files' | 'pass'>): (row: number) => Stood {
  const places = pass?.places;
  const stood = standingOf(places ? files.map((file) => ({ ...file, rows: file.read ?? file.rows })) : files);
  return (row) => stood(places ? places[row] : row);
}

/** The same of the zero-based places of rows among all that were read. @param files with the number of rows that were read of each */
export function standingOf(files: readonly FileSource[]): (place: number) => Stood {
  const starts = fileStarts(files);
  return (place) => {
    let [low, high] = [0, starts.length - 1];
    while (low < high - 1) {
      const middle = (low + high) >> 1;
      if (place < starts[middle]) high = middle;
      else low = middle;
    }
    return { place, file: files.at(low) ?? null, inFile: place - starts[low] };
  };
}

/** Whether any record can be read without reading those before it: the files say where rows begin. */
export const isReachable = (files: readonly FileSource[]): boolean =>
  files.every(({ begins, partial }) => begins !== undefined && !partial);
