import type { Kind } from '../extract/words';

/** How strongly another variable hangs together with one. */
export interface Pair {
  variable: string;
  label: string | null;
  kind: Kind;
  /** Rows valid in both. */
  base: number;
  /** Of nominal and ordinal ones. */
  cramersV?: number | null;
  /** Of counts and continuous ones. */
  etaSquared?: number | null;
  /** Cells that stand out; `null` for measures. */
  cells: number | null;
}

/** How strongly, on one scale: V, or √η²; `null` where undefined. */
export function strengthOf({ cramersV, etaSquared }: Pair): number | null {
  if (cramersV !== undefined) return cramersV;
  return etaSquared === undefined || etaSquared === null ? null : Math.sqrt(etaSquared);
}

/** The strongest first, those undefined last. */
export const ranked = (pairs: readonly Pair[]): Pair[] =>
  [...pairs].sort((a, b) => (strengthOf(b) ?? -1) - (strengthOf(a) ?? -1));
