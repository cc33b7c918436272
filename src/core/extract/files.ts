import type { FileSource } from './extract';

/** Zero-based first row of each file, and after them the number of all rows. */
export function fileStarts(files: readonly Pick<FileSource, 'rows'>[]): number[] {
  const starts = [0];
  for (const { rows } of files) starts.push(starts[starts.length - 1] + rows);
  return starts;
}
