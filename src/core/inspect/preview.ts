import { allRows, common, except, sizeOf, type Bits } from '../extract/bits';
import { variablesOf, type Condition, type Part } from '../sieve/condition';
import { conditionSays } from '../sieve/says';
import { misfitOf, sift, siftAll } from '../sieve/sift';
import type { Inspector } from './inspect';
import type { RowCounts } from './schema';
import { labelsIn } from './sieving';

/** What a condition would do, or does. */
export interface PartTold {
  id: string;
  says: string;
  on: boolean;
  /** Why it cannot be held against this extract; `null` where it can. */
  misfit: string | null;
  /** Rows that it keeps and drops by itself, of all that are there. */
  keeps: number;
  drops: number;
  /** Rows that fail it and no other that is switched on. */
  dropsAlone: number;
  /** Rows left after it and those before it that are switched on. */
  left: number;
  /** Rows without a valid answer that it drops, where those are all of them; 0 otherwise. */
  unanswered: number;
}

/** What a sieve would do, whether it is in force or not; nothing else changes by asking. */
export interface Preview {
  rows: RowCounts;
  parts: PartTold[];
}

/** @param parts in order, those switched off among them */
export function previewOf(inspector: Inspector, parts: readonly Part[]): Preview {
  const { lookup, extract, there, setAside } = inspector;
  const labelOf = labelsIn(lookup);
  const told = parts.map(({ id, condition, on }) => ({
    id,
    condition,
    on,
    says: conditionSays(condition, labelOf),
    misfit: misfitOf(condition, lookup),
  }));
  const inForce = told.filter(({ on, misfit }) => on && misfit === null);
  const sifting = siftAll(
    inForce.map(({ condition }) => condition),
    lookup,
    extract.rows,
    there,
  );
  const base = there ?? allRows(extract.rows);
  let left = sifting.all;
  return {
    rows: { all: sifting.all, aside: setAside.size, kept: sifting.kept },
    parts: told.map(({ condition, ...part }): PartTold => {
      const place = inForce.findIndex(({ id }) => id === part.id);
      if (part.misfit !== null)
        return { ...part, keeps: sifting.all, drops: 0, dropsAlone: 0, left, unanswered: 0 };
      const fails = place >= 0 ? sifting.failed[place] : except(base, sift(condition, lookup, extract.rows));
      const drops = sizeOf(fails);
      const account = place >= 0 ? sifting.conditions[place] : null;
      left = account?.left ?? left;
      return {
        ...part,
        keeps: sifting.all - drops,
        drops,
        dropsAlone: account?.dropsAlone ?? 0,
        left,
        unanswered: unansweredDropped(inspector, condition, fails, base),
      };
    }),
  };
}

/** Rows without a valid answer that a condition drops, where it drops all of them and was not asked to. */
function unansweredDropped(
  { lookup, extract }: Inspector,
  condition: Condition,
  fails: Bits,
  base: Bits,
): number {
  if ('not' in condition || 'any' in condition || 'answered' in condition) return 0;
  const [name] = variablesOf(condition);
  const without = sift({ variable: name, answered: false }, lookup, extract.rows);
  const there = common(base, without);
  return there === common(fails, without) ? there : 0;
}
