import { quantile } from '../tally/quantile';
import type { Weighed } from '../tally/weighed';
import { roundBins } from './bins';
import { bandsBetween, type Range } from './edges';

/** Bands of about as many rows each. @param parts 3 for thirds, 4 for quartiles @returns fewer where many rows hold one value */
export function equalParts(sorted: Weighed, parts: number, step: number): Range[] {
  const lowest = sorted.values[0];
  const edges = Array.from({ length: parts - 1 }, (_, i) => quantile(sorted, (i + 1) / parts) ?? lowest);
  // An edge is the first value of what lies above it, so that a value at the quantile stands in the upper band.
  return bandsBetween(
    edges.map((edge) => Math.ceil(edge / step - 1e-9) * step).filter((edge) => edge > lowest),
    step,
  );
}

/** Bands of a round width, open at both ends. */
export function roundBands(values: Float64Array, step: number): Range[] {
  const { size, start } = roundBins(values);
  const highest = values[values.length - 1];
  const edges: number[] = [];
  for (let edge = start + size; edge <= highest; edge += size) edges.push(edge);
  return bandsBetween(edges, step);
}

/** Codes that go together. */
export interface Group {
  label: string;
  codes: string[];
}

const HEADS = [/^(.+?)\s*:\s+/, /^(.+?)\s+[–-]\s+/, /^(.+?)\s*\(/, /^(.+?),\s/];

/** Codes of one label, or whose labels begin alike before a colon, a dash, a bracket or a comma; every other code by itself. */
export function byLabels(codes: readonly { code: string; label: string | null }[]): Group[] {
  for (const head of [null, ...HEADS]) {
    const groups = new Map<string, Group>();
    for (const { code, label } of codes) {
      const said = (label ?? code).trim();
      const key = (head?.exec(said)?.[1] ?? said).toLowerCase();
      const known = groups.get(key);
      if (known) known.codes.push(code);
      else groups.set(key, { label: head?.exec(said)?.[1] ?? said, codes: [code] });
    }
    const found = [...groups.values()];
    if (found.length > 1 && found.some((group) => group.codes.length > 1))
      return found.map((group) => {
        const [only] = group.codes;
        const own = codes.find(({ code }) => code === only);
        return group.codes.length === 1 ? { ...group, label: own?.label ?? only } : group;
      });
  }
  return [];
}
