import { affinity } from './affinity';
import type { Belonging } from './propose';
import { probability, round2 } from '../flags/rule';
import { reasonsOf } from './reasons';

/** A variable that may belong to a set too. */
export interface Belongs {
  name: string;
  confidence: number;
  because: string;
}

const MOST_ASKED = 40;
/** Of the members those that are nearest tell most. */
const NEAREST = 3;

/**
 * Variables that may belong to a set too, the likeliest first.
 * @param members names of the variables that are in it @param most how many are told
 */
export function belongsTo({ traits, common }: Belonging, members: readonly string[], most = 12): Belongs[] {
  const names = new Set(members);
  const inside = traits.filter(({ name }) => names.has(name));
  if (inside.length === 0) return [];
  const step = Math.max(1, Math.floor(inside.length / MOST_ASKED));
  const asked = inside.filter((_, i) => i % step === 0);
  return traits
    .filter(({ name }) => !names.has(name))
    .map((trait) => {
      const scores = asked.map((member) => affinity(trait, member, common)).sort((a, b) => b - a);
      const near = scores.slice(0, NEAREST);
      const mean = (list: readonly number[]): number => list.reduce((sum, x) => sum + x, 0) / list.length;
      return { trait, score: (mean(near) + mean(scores)) / 2 };
    })
    .sort((a, b) => b.score - a.score)
    .slice(0, most)
    .filter(({ score }) => score > -1.5)
    .map(({ trait, score }) => {
      const reasons = reasonsOf([trait], asked, common);
      return {
        name: trait.name,
        confidence: round2(probability(score)),
        because: reasons.length ? reasons.join('; ') : 'a little of each',
      };
    });
}
