import type { Pair } from '../core/cross/ranked';

/** Where a variable can stand in a table; a measure is summarised in its cells. */
export const SIDES = ['down', 'across', 'within', 'measure'] as const;
export type Side = (typeof SIDES)[number];

/** One variable against all others in view, as it goes on. */
export interface Everything {
  of: string;
  pairs: readonly Pair[];
  done: number;
  whole: number;
  running: boolean;
}
