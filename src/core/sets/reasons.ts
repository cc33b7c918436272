import { holds } from './affinity';
import type { Common } from './compared';
import { CUES } from './cues';
import type { Trait } from './traits';

/** Pairs beyond so many are not looked at one by one. */
const MOST_PAIRS = 400;
const MOST_REASONS = 3;
/** Log odds that a cue adds on average to be worth a word. */
const LEAST_WORTH = 0.35;

/** Why variables belong together, the reason that told most first; each holds for a good part of their pairs. */
export function reasonsOf(members: readonly Trait[], others: readonly Trait[], common: Common): string[] {
  const step = Math.max(1, Math.floor((members.length * others.length) / MOST_PAIRS));
  const sums = new Float64Array(CUES.length);
  let [pairs, seen] = [0, 0];
  for (const a of members)
    for (const b of others) {
      if (a === b || seen++ % step !== 0) continue;
      pairs++;
      CUES.forEach((cue, i) => {
        if (cue.says !== null) sums[i] += cue.weight * holds(cue, a, b, common);
      });
    }
  return CUES.map(({ says }, i) => ({ says, worth: sums[i] / Math.max(1, pairs) }))
    .filter((one): one is { says: string; worth: number } => one.says !== null && one.worth >= LEAST_WORTH)
    .sort((a, b) => b.worth - a.worth)
    .slice(0, MOST_REASONS)
    .map(({ says }) => says);
}
