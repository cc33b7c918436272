import type { Kind } from '../../extract/words';
import type { InferredKind } from '../known';
import type { Cue } from './cue';
import { POSSIBLE, type Seen } from './seen';
import { CUES } from './table';
import { TEMPERATURE, WEIGHTS } from './weights';

/** A cue that holds of a variable, and how far. */
export interface Held {
  cue: Cue;
  strength: number;
}

/** The cues that hold of a variable. */
export const heldBy = (seen: Seen): Held[] =>
  CUES.flatMap((cue) => {
    const strength = cue.holds(seen);
    return strength > 0 ? [{ cue, strength }] : [];
  });

/** The kinds that a variable may have, by how it is stored. */
export const possibleFor = ({ written: { storage }, rows }: Seen): readonly Kind[] => {
  const kinds = POSSIBLE[storage === 'integer' || storage === 'decimal' ? storage : 'text'];
  // A constant identifies nothing.
  return rows > 1 ? kinds : kinds.filter((kind) => kind !== 'identifier');
};

/** Log odds of each possible kind, before they are calibrated: the sum of what the cues weigh that hold. */
export function scoresOf(
  held: readonly Held[],
  kinds: readonly Kind[],
  weights: typeof WEIGHTS = WEIGHTS,
): Map<Kind, number> {
  return new Map(
    kinds.map((kind) => [
      kind,
      held.reduce((sum, { cue, strength }) => sum + strength * (weights[cue.id]?.[kind] ?? 0), 0),
    ]),
  );
}

/** Probabilities that add up to 1. @param temperature above 1 it makes them more even */
export function probabilities(
  scores: ReadonlyMap<Kind, number>,
  temperature = TEMPERATURE,
): Map<Kind, number> {
  const most = Math.max(...scores.values());
  const odds = [...scores].map(([kind, score]) => [kind, Math.exp((score - most) / temperature)] as const);
  const sum = odds.reduce((total, [, one]) => total + one, 0);
  return new Map(odds.map(([kind, one]) => [kind, one / sum]));
}

/** The reasons that a person is told. */
const MOST_REASONS = 3;
/** A reason that weighs less, in log odds, than this is none. */
const LEAST_TOLD = 0.25;

/** The likeliest kind, how likely it is, and the cues that told most. */
export function weigh(seen: Seen): InferredKind {
  const held = heldBy(seen);
  const ranked = [...probabilities(scoresOf(held, possibleFor(seen)))].sort((a, b) => b[1] - a[1]);
  const [kind, probability] = ranked[0];
  // What speaks for this kind more than for the next likely ones.
  const others = ranked.slice(1, 3).map(([other]) => other);
  const told = held
    .flatMap(({ cue, strength }) => {
      if (!cue.says) return [];
      const of = (one: Kind): number => strength * (WEIGHTS[cue.id]?.[one] ?? 0);
      const more = Math.max(...others.map((other) => of(kind) - of(other)));
      return more >= LEAST_TOLD && of(kind) >= 0 ? [{ more, why: cue.says(seen) }] : [];
    })
    .sort((a, b) => b.more - a.more)
    .map(({ why }) => why);
  const because = [...new Set(told)].slice(0, MOST_REASONS);
  return {
    kind,
    confidence: Math.min(0.99, Math.round(100 * probability) / 100),
    because: because.length > 0 ? because : ['no single reason tells much; all its evidence together does'],
  };
}
