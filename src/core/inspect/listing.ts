import { allRows, both, except, has, type Bits } from '../extract/bits';
import { spellingsOf } from '../infer/levels';
import type { Flag } from '../flags/rule';
import type { Part } from '../sieve/condition';
import type { Inspector } from './inspect';
import { ordered, type Sorting } from './listed';
import { sievingOf } from './sieving';

/** Which rows the record table lists. */
export interface ListAsk {
  /** Kept by the sieve at hand, dropped by it, all that are there, all that were received, those of a flag, or of all rows, of which only a sample is held, those that the sieve in force keeps. */
  which: 'kept' | 'dropped' | 'there' | 'received' | 'flag' | 'whole';
  /** Which listing of all rows is meant, as it was numbered when it was made. */
  whole?: number;
  /** The sieve at hand, whether it is in force or not; `null` for the one in force. */
  parts: readonly Part[] | null;
  /** The flag whose rows are wanted. */
  flag: Pick<Flag, 'rule' | 'variables' | 'codes'> | null;
  sort: readonly Sorting[];
}

/** Rows in the order in which they are listed. */
export interface Listing {
  rows: Uint32Array;
  within: Bits;
  /** For each condition that is switched on, in order, the rows that fail it; and the ids of those. */
  failed: Bits[];
  ids: string[];
}

/** The rows that are asked for, in the order wanted. */
export function listingOf(inspector: Inspector, ask: ListAsk): Listing {
  const { extract, there, lookup } = inspector;
  const { parts, sort } = ask;
  const sieve =
    parts === null ? inspector.sifted : sievingOf({ id: '', name: '', parts }, lookup, extract.rows, there);
  const within = rowsOf(inspector, ask, sieve?.within ?? null);
  return {
    rows: ordered(inspector, within, sort),
    within,
    failed: sieve?.failed ?? [],
    ids: sieve?.ids ?? [],
  };
}

/** Which rows those are. @param kept by the sieve at hand; all that are there where it is `null` */
export function rowsOf(
  inspector: Inspector,
  { which, flag }: Pick<ListAsk, 'which' | 'flag'>,
  kept: Bits | null,
): Bits {
  const all = allRows(inspector.extract.rows);
  const base = inspector.there ?? all;
  switch (which) {
    case 'kept':
    case 'whole':
      return kept ?? base;
    case 'dropped':
      return except(base, kept ?? base);
    case 'there':
      return base;
    case 'received':
      return all;
    case 'flag':
      return flag ? both(base, flaggedRows(inspector, flag)) : base;
  }
}

/** The rows that a flag is about: those that it names, or those that hold one of its codes in one of its variables. */
export function flaggedRows(inspector: Inspector, flag: NonNullable<ListAsk['flag']>): Bits {
  const { extract } = inspector;
  const bits: Bits = new Int32Array((extract.rows + 31) >>> 5);
  const found = inspector.flags.find((one) => isSameFlag(one, flag));
  if (found?.at) for (const row of found.at) bits[row >>> 5] |= 1 << (row & 31);
  else
    for (const name of flag.codes.length ? flag.variables : []) {
      const { places } = inspector.wholly(name) ?? {};
      if (!places) continue;
      const codes = new Set(flag.codes);
      const wanted = places.levels.map(
        (level) => codes.has(level.code) || spellingsOf(level).some((text) => codes.has(text)),
      );
      const { codes: at, to } = places.coding;
      for (let row = 0; row < extract.rows; row++)
        if (wanted[to[at[row]]]) bits[row >>> 5] |= 1 << (row & 31);
    }
  return bits;
}

export const isSameFlag = (a: NonNullable<ListAsk['flag']>, b: NonNullable<ListAsk['flag']>): boolean =>
  a.rule === b.rule &&
  a.variables.join('\n') === b.variables.join('\n') &&
  a.codes.join('\n') === b.codes.join('\n');

/** Ids of the conditions that a row fails. */
export const failedIn = ({ failed, ids }: Listing, row: number): string[] =>
  ids.filter((_, i) => has(failed[i], row));
