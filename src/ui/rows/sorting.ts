import type { Sorting } from '../../core/inspect/listed';

/** Up, down, not; alone, or within what rows are sorted by already. */
export function nextSort(sort: readonly Sorting[], variable: string, too: boolean): Sorting[] {
  const known = sort.find((one) => one.variable === variable);
  const others = too ? sort.filter((one) => one.variable !== variable) : [];
  if (!known) return [...others, { variable, down: false }];
  if (known.down) return others;
  return too
    ? sort.map((one) => (one.variable === variable ? { variable, down: true } : one))
    : [{ variable, down: true }];
}
