import type { Codebook } from '../extract/extract';
import { InputError, Stopped, type Problem } from '../extract/problem';
import type { Layout } from '../read/fixed-width';
import type { Look } from '../read/look';
import type { ByteSource } from '../read/source';
import type { CellGuess } from './cells';

/** A file as it was handed over. `key` tells it from others of its name. */
export interface Handed {
  key: string;
  source: ByteSource;
}

/** What a file, a member of an archive, or a sheet turns out to be. */
export type Brought = { key: string; name: string; bytes: number; archive: string | null } & (
  | {
      what: 'data';
      source: ByteSource;
      look: Look;
      layout: Layout | null;
      layoutFrom: string | null;
      cells: CellGuess;
    }
  | { what: 'codebook'; codebook: Codebook }
  /** A dig log. `variables`: the names under which data were handed off that came with it; `null` where it came without. */
  | { what: 'log'; log: unknown; variables: string[] | null }
  | { what: 'problem'; problem: Problem }
  /** Nothing that is read: a picture or a note in an archive. */
  | { what: 'passed'; says: string }
);

export interface Everything {
  brought: Brought[];
  notices: string[];
}

/** A file, or a member of an archive, whose content is not known yet. */
export type Unknown = Handed & { archive: string | null };

/** What is told of every file whatever it is. */
export const baseOf = ({
  key,
  source: { name, bytes },
  archive,
}: Unknown): Omit<Unknown, 'source'> & {
  name: string;
  bytes: number;
} => ({ key, name, bytes, archive });

export type Remember = <T>(key: string, work: () => Promise<T>) => Promise<T>;

/** Does work once for a key, and gives what came of it ever after. */
export const remembering =
  (memo: Map<string, unknown>): Remember =>
  async <T>(key: string, work: () => Promise<T>): Promise<T> => {
    const known = memo.get(key) as Promise<T> | undefined;
    if (known) return known;
    const made = work();
    memo.set(key, made);
    return made;
  };

export function problemOf(cause: unknown, file: string): Problem {
  if (cause instanceof Stopped) throw cause;
  if (cause instanceof InputError) return cause.problem;
  const message = cause instanceof Error ? cause.message : String(cause);
  return { file, says: `could not be read (${message}); choose the file again` };
}
