/**
 * Indices of every tied most frequent value; empty where all occur once.
 *
 * Example: counts 2, 5, 5 → [1, 2]; counts 1, 1 → []
 */
export function modes(counts: ArrayLike<number>): number[] {
  let most = 1;
  for (let i = 0; i < counts.length; i++) if (counts[i] > most) most = counts[i];
  if (most === 1) return [];
  const found: number[] = [];
  for (let i = 0; i < counts.length; i++) if (counts[i] === most) found.push(i);
  return found;
}
