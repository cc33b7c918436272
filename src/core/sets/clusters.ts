import type { Battery } from './batteries';
import { affinitiesOf } from './affinities';
import { orderOf } from './affinity';
import type { Common } from './compared';
import { averageLinkage } from './linkage';
import type { Trait } from './traits';

/** Variables that belong together, with how alike they are on average, in log odds. */
export interface Cluster {
  /** Zero-based places, ascending. */
  members: number[];
  score: number;
}

/** Groups join while their members are more likely of one set than not, on average. */
const LEAST_SCORE = -0.8;
const LEAST_LEFT = -1.1;
const SMALL = 2;
/** Fewer variables than this tell nothing of the order. */
const SOME = 10;
/** No theme holds a larger share of an extract of some width. */
const MOST_SHARE = 0.5;
const SOME_WIDTH = 16;
/** So many units are compared with each other at once: more are taken stretch by stretch. */
const MOST_UNITS = 3000;

/** Themes: what is likely of one set, each battery as one. */
export function clustersOf(
  traits: readonly Trait[],
  batteries: readonly Battery[],
  given: Common,
): Cluster[] {
  const inBattery = new Map(
    batteries.flatMap((battery) => battery.members.map((at) => [at, battery] as const)),
  );
  // Items of a battery stand together wherever it is: whether the file goes matter by matter, the others tell.
  const others = traits.filter(({ at }) => !inBattery.has(at));
  const order = others.length < SOME ? given.order : Math.min(given.order, orderOf(others, given));
  const common = { ...given, order };
  const units = [
    ...batteries.map(({ members }) => members),
    ...traits.filter(({ at }) => !inBattery.has(at)).map(({ at }) => [at]),
  ].sort((a, b) => a[0] - b[0]);
  const found: Cluster[] = [];
  for (let from = 0; from < units.length; from += MOST_UNITS)
    found.push(...joined(units.slice(from, from + MOST_UNITS), traits, common));
  return found;
}

function joined(units: readonly number[][], traits: readonly Trait[], common: Common): Cluster[] {
  const n = units.length;
  // The ends of a battery speak for it.
  const alike = affinitiesOf(
    units.map((members) =>
      [...new Set([members[0], members[members.length - 1]])].map((at) => common.compared[traits[at].at]),
    ),
    common,
  );
  const scoresOf = alike.slice();
  const members: number[][] = units.map((unit) => [...unit]);
  const scores: number[] = units.map(() => 0);
  const unitsIn: number[][] = units.map((_, i) => [i]);
  const top = new Set(units.keys());
  const most = traits.length >= SOME_WIDTH ? traits.length * MOST_SHARE : Infinity;
  averageLinkage(n, scoresOf).forEach(({ a, b, score }, i) => {
    // What was not joined below is not joined above.
    if (score < LEAST_SCORE || !top.has(a) || !top.has(b)) return;
    if (members[a].length + members[b].length > most) return;
    members[n + i] = [...members[a], ...members[b]];
    scores[n + i] = score;
    unitsIn[n + i] = [...unitsIn[a], ...unitsIn[b]];
    top.delete(a);
    top.delete(b);
    top.add(n + i);
  });
  // What stays alone, or nearly, goes to what it is nearest to, if it is not too far.
  for (const small of [...top]) {
    if (members[small].length > SMALL) continue;
    let [nearest, best] = [-1, LEAST_LEFT];
    for (const other of top) {
      if (other === small || members[other].length <= SMALL) continue;
      let sum = 0;
      for (const a of unitsIn[small]) for (const b of unitsIn[other]) sum += alike[a * n + b];
      const mean = sum / (unitsIn[small].length * unitsIn[other].length);
      if (mean > best) [nearest, best] = [other, mean];
    }
    if (nearest < 0) continue;
    members[nearest] = [...members[nearest], ...members[small]];
    unitsIn[nearest] = [...unitsIn[nearest], ...unitsIn[small]];
    top.delete(small);
  }
  return [...top].map((group) => ({ members: members[group].sort((a, b) => a - b), score: scores[group] }));
}
