import type { ProposedSet } from './propose';
import type { ThematicSet } from './view';

/** What a person decided about proposals: sets that were made, and the variables of proposals that were sent away. */
export interface Made {
  sets: ReadonlyMap<string, ThematicSet>;
  sentAway: readonly (readonly string[])[];
}

/** A proposal that shares so much with one that was sent away is that one. */
const SAME = 0.8;

const overlap = (a: readonly string[], b: readonly string[]): number => {
  const inA = new Set(a);
  const shared = b.filter((name) => inA.has(name)).length;
  return shared / Math.max(1, a.length + b.length - shared);
};

/** Proposals that were neither taken nor sent away. */
export function openProposals(proposals: readonly ProposedSet[], { sets, sentAway }: Made): ProposedSet[] {
  const made = [...sets.values()];
  return proposals.filter(
    (one) =>
      !made.some((set) => set.proposed === one.name || overlap(set.variables, one.variables) === 1) &&
      !sentAway.some((variables) => overlap(variables, one.variables) >= SAME),
  );
}
