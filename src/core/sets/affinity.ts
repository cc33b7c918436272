import { comparedOf, type Common } from './compared';
import { CUES, type Cue } from './cues';
import type { Trait } from './traits';

/** Log odds that two variables of which nothing is known are of one set. */
const BASE = -5.4;
/** Where the order says nothing, not to be neighbours is nothing against two either. */
const WITHOUT_ORDER = 2.8;

/** What variables are compared by, which cues can speak of each, and how much the order of the file tells. */
export function commonOf(traits: readonly Trait[]): Common {
  const common = comparedOf(traits);
  for (const one of common.compared)
    CUES.forEach((cue, i) => {
      if ('reach' in cue || cue.shares(one, common.says).length > 0) one.speaks |= 1 << i;
    });
  return { ...common, order: orderOf(traits, common) };
}

/** By so much, in log odds, neighbours are more alike than others where the order of the file is that of its matters. */
const FULL_ORDER = 1.2;
const MOST_COMPARED = 600;

/**
 * How far neighbours in the file are more alike than any two, by everything but their nearness: 1 where the file goes matter
 * by matter, 0 where its order is of no account.
 * @param traits in file order; of a battery any one item speaks for it
 */
export function orderOf(traits: readonly Trait[], common: Common): number {
  if (traits.length < 8) return 1;
  const step = Math.max(1, Math.floor(traits.length / MOST_COMPARED));
  // By everything else.
  const nowhere = { ...common, order: 0 };
  let [near, far, pairs] = [0, 0, 0];
  for (let at = 0; at + 1 < traits.length; at += step) {
    near += affinity(traits[at], traits[at + 1], nowhere);
    far += affinity(traits[at], traits[(at + 1 + (traits.length >> 1)) % traits.length], nowhere);
    pairs++;
  }
  return Math.min(1, Math.max(0, (near - far) / pairs / FULL_ORDER));
}

/** How far a reason holds of two variables, 0 to 1. */
export const holds = ({ strength }: Cue, a: Trait, b: Trait, common: Common): number =>
  strength(common.compared[a.at], common.compared[b.at], common);

/** Log odds of two variables before any cue is asked. */
export const baseOf = ({ order }: Common): number => BASE + WITHOUT_ORDER * (1 - order);

/** Log odds that two variables are of one set. */
export function affinity(a: Trait, b: Trait, common: Common): number {
  const one = common.compared[a.at];
  const other = common.compared[b.at];
  const speaks = one.speaks & other.speaks;
  let sum = baseOf(common);
  for (let i = 0; i < CUES.length; i++)
    if (speaks & (1 << i)) sum += CUES[i].weight * CUES[i].strength(one, other, common);
  return sum;
}
