import type { ProposedSet } from '../core/sets/propose';
import type { Themed } from './themed';

/** Pairs that stand together rightly, wrongly, and that are missed. */
export interface Pairs {
  right: number;
  wrong: number;
  missed: number;
}
export const f1 = ({ right, wrong, missed }: Pairs): number =>
  (2 * right) / Math.max(1, 2 * right + wrong + missed);

/** How far proposals are those of a person. */
export interface MeasuredSets {
  /** Pairs of one theme. */
  themes: Pairs;
  /** The same without the pairs inside one battery. */
  beyond: Pairs;
  /** Pairs of one battery, of those in proposals that are batteries. */
  batteries: Pairs;
  /** Variables of a theme that stand in a proposal of which most are of that theme; and all that have a theme. */
  sensible: number;
  themed: number;
}

export function measured({ themes }: Themed, proposals: readonly ProposedSet[]): MeasuredSets {
  const pairsOf = (sets: readonly ProposedSet[]): Set<string> =>
    new Set(
      sets.flatMap(({ variables }) =>
        variables.flatMap((a, i) => variables.slice(i + 1).map((b) => [a, b].sort().join(' '))),
      ),
    );
  const together = pairsOf(proposals);
  const asItems = pairsOf(proposals.filter(({ because }) => because.startsWith('items of one question')));
  const all: MeasuredSets = {
    themes: { right: 0, wrong: 0, missed: 0 },
    beyond: { right: 0, wrong: 0, missed: 0 },
    batteries: { right: 0, wrong: 0, missed: 0 },
    sensible: 0,
    themed: 0,
  };
  const count = (pairs: Pairs, said: boolean, is: boolean): void => {
    if (said && is) pairs.right++;
    else if (said) pairs.wrong++;
    else if (is) pairs.missed++;
  };
  const known = [...themes];
  known.forEach(([a, of], i) => {
    if (of.theme !== null) {
      all.themed++;
      const most = proposals.some(
        ({ variables }) =>
          variables.includes(a) &&
          variables.filter((name) => themes.get(name)?.theme === of.theme).length * 2 > variables.length,
      );
      if (most) all.sensible++;
    }
    for (const [b, other] of known.slice(i + 1)) {
      const key = [a, b].sort().join(' ');
      const one = of.theme !== null && of.theme === other.theme;
      const items = one && of.battery !== null && of.battery === other.battery;
      count(all.themes, together.has(key), one);
      if (!items) count(all.beyond, together.has(key), one);
      count(all.batteries, asItems.has(key), items);
    }
  });
  return all;
}

/** Sums of several, each extract counting by its pairs over its variables, so that wide ones do not decide alone. */
export function together(of: readonly (readonly [Themed, MeasuredSets])[]): Record<
  'themes' | 'beyond' | 'batteries',
  number
> & {
  sensible: number;
} {
  const sum = (pick: (one: MeasuredSets) => Pairs): Pairs => {
    const total: Pairs = { right: 0, wrong: 0, missed: 0 };
    for (const [{ themes }, one] of of)
      for (const part of ['right', 'wrong', 'missed'] as const) total[part] += pick(one)[part] / themes.size;
    return total;
  };
  return {
    themes: f1(sum(({ themes }) => themes)),
    beyond: f1(sum(({ beyond }) => beyond)),
    batteries: f1(sum(({ batteries }) => batteries)),
    sensible: of.reduce((n, [, one]) => n + one.sensible, 0) / of.reduce((n, [, one]) => n + one.themed, 0),
  };
}
