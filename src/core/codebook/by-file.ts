import type { Codebook, CodebookEntry } from '../extract/extract';
import { putUnder } from '../extract/put-under';

/** A data file's name without folders, endings and case, by which documents and files find each other. */
export const fileStem = (name: string): string =>
  (name.split(/[\\/]/).at(-1) ?? name)
    .toLowerCase()
    .replace(/\.(gz|zip)$/, '')
    .replace(/(?<=.)\.[a-z0-9]{1,8}$/, '');

/** What a codebook says of some files. */
export interface OfFiles {
  /** One entry for a name. */
  entries: CodebookEntry[];
  /** Names that several of its data files have, none of which could be told to be the one at hand. */
  unclear: string[];
  /** Published number of rows of these files. */
  cases: number | null;
}

/**
 * The entries of a codebook that are of some files. A document may describe several data files or tables, of which each has a
 * variable of one name: what counts is the description of the file at hand. Where it names none of them, the first counts.
 * @param files names of the data files at hand
 */
export function entriesFor(codebook: Codebook, files: readonly string[]): OfFiles {
  const { entries, parts } = codebook;
  const here = new Set(files.map(fileStem));
  const isHere = (names: readonly string[] | undefined): boolean =>
    names?.some((name) => here.has(fileStem(name))) ?? false;
  const known = entries.some((entry) => isHere(entry.files));
  const byName = new Map<string, CodebookEntry[]>();
  for (const entry of entries)
    if (!known || !entry.files || isHere(entry.files)) putUnder(byName, entry.name, entry);
  const own = parts?.filter(({ file }) => here.has(fileStem(file))) ?? [];
  return {
    entries: [...byName.values()].map((same) => same.find((entry) => isHere(entry.files)) ?? same[0]),
    unclear: known ? [] : [...byName].filter(([, same]) => same.length > 1).map(([name]) => name),
    cases: own.length
      ? own.reduce<number | null>(
          (sum, { cases }) => (sum === null || cases === null ? null : sum + cases),
          0,
        )
      : codebook.cases,
  };
}
