/** Two groups that become one, and how alike they are on average; groups from `n` on are those made before, in order. */
export interface Merge {
  a: number;
  b: number;
  score: number;
  size: number;
}

/**
 * Average linkage by chains of nearest neighbours: at each step the two groups join whose members are most alike on
 * average. O(n²) time and memory.
 * Source: Murtagh, F. (1983), A survey of recent advances in hierarchical clustering algorithms, The Computer Journal 26(4).
 * @param n number of things @param alike n × n scores, higher is more alike; it is overwritten
 * @returns n − 1 merges, the most alike first
 */
export function averageLinkage(n: number, alike: Float32Array): Merge[] {
  const size = new Float64Array(n).fill(1);
  const live = new Uint8Array(n).fill(1);
  const found: { a: number; b: number; score: number }[] = [];
  const chain: number[] = [];
  for (let left = n; left > 1;) {
    if (chain.length === 0) chain.push(live.indexOf(1));
    const at = chain[chain.length - 1];
    const before = chain.length > 1 ? chain[chain.length - 2] : -1;
    // Of several that are as near the one before wins, or the chain would never end.
    let [nearest, best] = [before, before < 0 ? -Infinity : alike[at * n + before]];
    for (let other = 0; other < n; other++)
      if (live[other] && other !== at && alike[at * n + other] > best) {
        best = alike[at * n + other];
        nearest = other;
      }
    if (nearest !== before) {
      chain.push(nearest);
      continue;
    }
    chain.length -= 2;
    found.push({ a: at, b: nearest, score: best });
    const [one, two] = [size[at], size[nearest]];
    for (let other = 0; other < n; other++) {
      if (!live[other] || other === at || other === nearest) continue;
      const mean = (one * alike[at * n + other] + two * alike[nearest * n + other]) / (one + two);
      alike[at * n + other] = mean;
      alike[other * n + at] = mean;
    }
    size[at] = one + two;
    live[nearest] = 0;
    left--;
  }
  return inOrder(n, found);
}

/** Merges by the places of their members become merges of groups, the most alike first. */
function inOrder(n: number, found: readonly { a: number; b: number; score: number }[]): Merge[] {
  const group = Array.from({ length: n }, (_, i) => i);
  const sizes = new Array<number>(n).fill(1);
  const rootOf = (i: number): number => {
    let at = i;
    while (group[at] !== at) at = group[at] = group[group[at]];
    return at;
  };
  return [...found]
    .sort((x, y) => y.score - x.score)
    .map(({ a, b, score }, i) => {
      const [x, y] = [rootOf(a), rootOf(b)];
      const made = n + i;
      group[made] = made;
      group[x] = group[y] = made;
      sizes[made] = sizes[x] + sizes[y];
      return { a: x, b: y, score, size: sizes[made] };
    });
}
