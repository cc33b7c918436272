import { distance } from 'fastest-levenshtein';

/** Names that are no more than this share of their letters away are near. */
const NEAR = 0.5;
const MOST_NEAR = 3;

/** Of some names those that are like one that is not among them, the nearest first. */
export function nearNames(name: string, names: readonly string[]): string[] {
  const wanted = name.toLowerCase();
  return [...new Set(names)]
    .map((one) => {
      const other = one.toLowerCase();
      const away = distance(wanted, other) / Math.max(1, wanted.length, other.length);
      // What begins or holds what was typed is meant, however long it is.
      return { one, away: other.includes(wanted) || wanted.includes(other) ? away * NEAR : away };
    })
    .filter(({ away }) => away <= NEAR)
    .sort((a, b) => a.away - b.away)
    .slice(0, MOST_NEAR)
    .map(({ one }) => one);
}
