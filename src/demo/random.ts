/** A seeded source of chance: the same seed gives the same panel on every machine. */
export interface Chance {
  /** From 0 up to 1. */
  next(): number;
  /** A whole number from `low` to `high`, both included. */
  whole(low: number, high: number): number;
  /** Roughly normal, mean 0, standard deviation 1: four uniforms, which is enough for made-up data and the same on every machine. */
  normal(): number;
  /** True with probability `p`. */
  odds(p: number): boolean;
  /** One of the items, by weights that need not add up to 1; equal ones if none are given. */
  pick<T>(items: readonly T[], weights?: readonly number[]): T;
}

/** Mulberry32: a 32-bit counter run through a mixing function (public domain). */
export function chance(seed: number): Chance {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let x = Math.imul(state ^ (state >>> 15), state | 1);
    x ^= x + Math.imul(x ^ (x >>> 7), x | 61);
    return ((x ^ (x >>> 14)) >>> 0) / 2 ** 32;
  };
  return {
    next,
    whole: (low, high) => low + Math.floor(next() * (high - low + 1)),
    normal: () => {
      const sum = next() + next() + next() + next() - 2;
      return sum * Math.sqrt(3);
    },
    odds: (p) => next() < p,
    pick: (items, weights) => {
      if (!weights) return items[Math.floor(next() * items.length)];
      let at = next() * weights.reduce((sum, weight) => sum + weight, 0);
      for (let i = 0; i < items.length; i++) {
        at -= weights[i];
        if (at < 0) return items[i];
      }
      return items[items.length - 1];
    },
  };
}
