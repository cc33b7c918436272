import { standingOf } from '../extract/files';
import type { Extract } from '../extract/extract';
import type { ByteSource } from '../read/source';
import type { FileToRead } from './receive';

/** Bytes that are read at once. */
const PIECE = 1 << 20;

/** Files that are read from a row on. */
interface FilesFrom {
  files: FileToRead[];
  /** Zero-based place, among the files of the extract, of the first of these. */
  file: number;
  /** Rows that come first, since they stand with the names: what they are followed by is not what follows them. */
  head: number;
  /** Zero-based place, among all rows, of the first that comes after those. */
  row: number;
}

/**
 * The files of an extract from the last row on that can be found without reading those before it, and is not behind the one
 * wanted.
 * @param place zero-based, of the row wanted among all rows @returns `null` where there is no such row
 */
export function filesFrom(
  { files: sources }: Pick<Extract, 'files'>,
  files: readonly FileToRead[],
  place: number,
): FilesFrom | null {
  const read = sources.map((file) => ({ ...file, rows: file.read ?? file.rows }));
  const stood = standingOf(read)(place);
  const file = read.findIndex((one) => one === stood.file);
  if (file < 0) return null;
  const { begins, partial } = read[file];
  const { source, look } = files[file];
  const before = begins?.findLast(([row]) => row <= stood.inFile);
  // What is above the first row is read too: the names stand there.
  const first = begins?.at(0);
  const start = place - stood.inFile;
  if (!look || partial || !before || !first || !source.slice)
    return { files: files.slice(file), file, head: 0, row: start };
  return {
    files: [{ ...files[file], source: partsOf(source, first[1], before[1]) }, ...files.slice(file + 1)],
    file,
    head: first[0],
    row: start + before[0],
  };
}

/** A source without what lies between its head and a byte. */
function partsOf(source: ByteSource, head: number, from: number): ByteSource {
  const { slice } = source;
  if (!slice) return source;
  return {
    ...source,
    open: async function* () {
      yield await slice(0, head);
      for (let at = from; at < source.bytes; at += PIECE)
        yield await slice(at, Math.min(source.bytes, at + PIECE));
    },
  };
}
