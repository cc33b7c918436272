import type { Notice } from '../extract/extract';
import { putUnder } from '../extract/put-under';

/**
 * The columns that the names of a further file mean: those of the same name, or the one that differs only by case where
 * that is clear. Files meet in the same way whether they are read together or one after the other.
 * @param names of one file, in its own order @param known columns of the files before it @returns names in the same order
 */
export function namesMet(
  names: readonly string[],
  known: { readonly size: number; has(name: string): boolean; keys(): Iterable<string> },
): string[] {
  if (known.size === 0) return [...names];
  const own = new Set(names);
  const times = new Map<string, number>();
  for (const name of names) times.set(name.toLowerCase(), (times.get(name.toLowerCase()) ?? 0) + 1);
  const like = new Map<string, string[]>();
  for (const other of known.keys()) {
    if (own.has(other)) continue;
    const folded = other.toLowerCase();
    putUnder(like, folded, other);
  }
  return names.map((name) => {
    const folded = name.toLowerCase();
    const others = known.has(name) ? [] : (like.get(folded) ?? []);
    return others.length === 1 && times.get(folded) === 1 ? others[0] : name;
  });
}

/** What a file's names were taken for. */
export const metNotices = (names: readonly string[], met: readonly string[]): Notice[] =>
  names.flatMap((name, i) =>
    name === met[i] ? [] : [{ says: `${name} is taken for ${met[i]}, as the first file writes it` }],
  );
