import type { Bits } from '../extract/bits';
import type { State } from '../log/fold';
import type { ConditionCounts } from '../rows/all-rows';
import type { Condition, Sieve } from '../sieve/condition';
import { variablesOf } from '../sieve/condition';
import { conditionSays, type LabelOf } from '../sieve/says';
import { misfitOf, siftAll, type ConditionAccount, type Lookup, type Sifted } from '../sieve/sift';
import type { Inspected } from './inspected';

/** A sieve held against an extract. */
export interface Sieving {
  sieve: Sieve;
  /** The rows that were there when it was. */
  there: Bits | null;
  /** Rows kept. */
  within: Bits;
  account: ConditionAccount[];
  /** For each condition that is switched on and fits the rows that fail it, and its id. */
  failed: Bits[];
  ids: string[];
  /** Conditions that do not fit this extract and drop nothing, in words. */
  misfits: string[];
  /** Names of the variables that it asks about. */
  asks: string[];
  /** Those of its conditions that are switched on and fit. */
  conditions: readonly Condition[];
}

/** What conditions may know of a variable. */
export const siftedBy = ({ name, written, places }: Inspected, { merges }: State): Sifted => ({
  name,
  written,
  places,
  merges: merges.get(name) ?? NO_MERGES,
});
const NO_MERGES: ReadonlyMap<string, string> = new Map();

/** The label of a code, as a variable has it. */
export const labelsIn =
  (lookup: Lookup): LabelOf =>
  (variable, code) =>
    lookup(variable)?.places.levels.find((level) => level.code === code || level.spellings.includes(code))
      ?.label ?? null;

/** Whether two sieves keep the same rows of the same variables, by the same conditions. */
export const isSameSieve = (a: Sieve, b: Sieve): boolean =>
  a === b || (a.id === b.id && a.name === b.name && JSON.stringify(a.parts) === JSON.stringify(b.parts));

/** @param there rows that are not set aside @returns `null` where none of its conditions is switched on, or none fits */
export function sievingOf(sieve: Sieve, lookup: Lookup, rows: number, there: Bits | null): Sieving | null {
  const parts = sieve.parts.filter((part) => part.on);
  const on = parts.map(({ condition }) => condition);
  const misfits = on.flatMap((condition) => {
    const says = misfitOf(condition, lookup);
    return says === null
      ? []
      : [`a condition of the sieve does not fit and drops nothing: ${conditionSays(condition)} (${says})`];
  });
  const fitting = on.filter((condition) => misfitOf(condition, lookup) === null);
  if (on.length === 0) return null;
  const { within, failed, conditions } = siftAll(fitting, lookup, rows, there);
  return {
    sieve,
    there,
    within,
    failed,
    ids: parts.filter(({ condition }) => misfitOf(condition, lookup) === null).map(({ id }) => id),
    account: accountOf(fitting, conditions, lookup),
    misfits,
    asks: [...new Set(on.flatMap(variablesOf))],
    conditions: fitting,
  };
}

/** The account of conditions, each with what it says. */
export function accountOf(
  conditions: readonly Condition[],
  counts: readonly ConditionCounts[],
  lookup: Lookup,
): ConditionAccount[] {
  const labelOf = labelsIn(lookup);
  return conditions.map((condition, i) => ({ says: conditionSays(condition, labelOf), ...counts[i] }));
}
