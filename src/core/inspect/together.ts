import { largest } from '../tally/extent';
import { isCategorical, isMeasure, type Kind } from '../extract/words';
import type { Bits } from '../extract/bits';
import { levelCategories } from '../infer/level-coding';
import { validOf } from '../infer/levels';
import { byFile, type Records } from '../rows/records';
import { moments } from '../tally/moments';
import { quantile } from '../tally/quantile';
import { weightedMoments } from '../tally/weighted-moments';
import { weightedQuantile } from '../tally/weighted-quantile';
import { codeListOf } from './summary';
import type { Inspected } from './inspected';
import { weightOf, type Weighting } from './weighted';

/** Several variables of one list of codes as one table: items down, codes across. */
export interface Battery {
  codes: { code: string; label: string | null }[];
  items: {
    name: string;
    label: string | null;
    valid: number;
    counts: number[];
    mean: number | null;
    odd: string | null;
  }[];
}

/** How far an item's answers may be from the others', as half the sum of absolute differences of shares, before it is odd. */
const ODD = 0.35;

/** @returns `null` where the variables have no list of codes in common */
export function batteryOf(all: readonly Inspected[]): Battery | null {
  const [first] = all;
  if (all.length < 2 || !first || !all.every(({ kind }) => isCategorical(kind))) return null;
  const lists = new Set(all.map(codeListOf));
  const levels = all.map(({ levels: found }) => validOf(found).levels);
  const codes = new Map<string, string | null>();
  for (const level of [...levels].sort((a, b) => b.length - a.length).flat())
    if (!codes.has(level.code) || codes.get(level.code) === null) codes.set(level.code, level.label);
  const most = largest(levels.map(({ length }) => length));
  // Lists that differ by a code or two that some did not use are one list.
  if (lists.size > 1 && codes.size > most + 2) return null;
  const order = [...codes.keys()].sort((a, b) => Number(a) - Number(b) || (a < b ? -1 : 1));
  const items = all.map(({ name, label }, i) => {
    const byCode = new Map(levels[i].map((level) => [level.code, level]));
    const counts = order.map((code) => byCode.get(code)?.count ?? 0);
    const numbers = levels[i].every(({ value }) => value !== null);
    const valid = counts.reduce((sum, count) => sum + count, 0);
    return {
      name,
      label,
      valid,
      counts,
      mean: numbers && valid ? moments(validOf(all[i].levels)).mean : null,
      odd: null as string | null,
    };
  });
  const share = (item: (typeof items)[number]): number[] =>
    item.counts.map((count) => count / Math.max(1, item.valid));
  for (const item of items) {
    const others = items.filter((other) => other !== item && other.valid > 0);
    if (others.length < 2 || item.valid === 0) continue;
    const usual = order.map(
      (_, c) => others.reduce((sum, other) => sum + share(other)[c], 0) / others.length,
    );
    const distance = share(item).reduce((sum, x, c) => sum + Math.abs(x - usual[c]), 0) / 2;
    const own = new Set(levels[all.findIndex(({ name }) => name === item.name)].map(({ code }) => code));
    const lacks = order.filter(
      (code, c) =>
        !own.has(code) &&
        usual[c] > 0.02 &&
        others.filter(({ counts }) => counts[c] > 0).length > others.length / 2,
    );
    const extra = order.filter((code, c) => own.has(code) && usual[c] === 0);
    if (lacks.length || extra.length)
      item.odd = [
        lacks.length && `nobody gave ${lacks.join(', ')}`,
        extra.length && `only here ${extra.join(', ')}`,
      ]
        .filter(Boolean)
        .join('; ');
    else if (distance > ODD) item.odd = 'answered otherwise than the rest';
  }
  return { codes: order.map((code) => ({ code, label: codes.get(code) ?? null })), items };
}

/** The same summary of one variable within each group of rows. `base`: what shares of a group are of: its valid rows, or the sum of their weights. */
export interface Grouped {
  variable: string;
  kind: Kind;
  by: string;
  codes: { code: string; label: string | null }[];
  groups: {
    code: string;
    label: string | null;
    rows: number;
    valid: number;
    base: number;
    counts: number[];
    mean: number | null;
    sd: number | null;
    min: number | null;
    q1: number | null;
    median: number | null;
    q3: number | null;
    max: number | null;
  }[];
  /** The weight by which counts and figures are weighted; rows and valid rows never are. */
  weight: string | null;
  /** Groups beyond those shown. */
  more: number;
  why: string | null;
}

const MOST_GROUPS = 30;
const MOST_CODES = 12;

/** What a grouping asks of: whatever holds the rows, the rows that count, the weight in force. */
export interface Grounds {
  records: Records;
  files: readonly { name: string; wave?: string; rows: number }[];
  within: Bits | null;
  weighting: Weighting | null;
}

/** The summary of one variable within the levels of another, or within the files where `by` is `null`. */
export async function groupedBy(
  inspected: Inspected,
  by: Inspected | null,
  { records, files, within, weighting }: Grounds,
): Promise<Grouped> {
  const { kind, levels, name } = inspected;
  const none = {
    variable: name,
    kind,
    by: by?.name ?? 'file',
    codes: [],
    groups: [],
    weight: weighting?.inspected.name ?? null,
    more: 0,
  };
  if (!isCategorical(kind) && !isMeasure(kind))
    return { ...none, why: `${kind} has no summary that could be set side by side` };
  const valid = validOf(levels).levels;
  const groups = groupsOf(by, files);
  if (by && groups.length > 200)
    return { ...none, why: `${by.name} has ${groups.length} levels: too many to be groups` };
  const shown = groups.slice(0, MOST_GROUPS);
  const grouping = by
    ? levelCategories(by.name, validOf(by.levels).levels.slice(0, MOST_GROUPS))
    : byFile(shown.length);
  const weight = weighting && weightOf(weighting);
  const categories = levelCategories(name, valid);
  const all = (await records.cross([grouping], within)).sums;
  const plain = await records.cross([grouping, categories], within);
  const counted = weight ? await records.cross([grouping, categories], within, weight) : plain;
  const ofGroup = (cells: Float64Array, g: number): Float64Array =>
    cells.subarray(g * valid.length, (g + 1) * valid.length);
  const sum = (cells: Float64Array): number => cells.reduce((whole, cell) => whole + cell, 0);
  const measure = isMeasure(kind);
  const kept = measure ? [] : valid.map((level, i) => ({ level, i })).slice(0, MOST_CODES);
  const values = Float64Array.from(valid, ({ value }) => value ?? NaN);
  return {
    ...none,
    why: null,
    more: groups.length - shown.length,
    codes: kept.map(({ level: { code, label } }) => ({ code, label })),
    groups: shown.map(({ code, label }, g) => {
      const counts = ofGroup(counted.sums, g);
      const weighed = { values, counts };
      const n = sum(ofGroup(counted.rows, g));
      const ranked =
        measure && n > 0
          ? {
              values: values.filter((_, i) => counts[i] > 0),
              counts: counts.filter((count) => count > 0),
            }
          : null;
      const { mean, sd } =
        measure && n > 0
          ? weight
            ? weightedMoments(weighed, n)
            : moments(weighed)
          : { mean: null, sd: null };
      const at = (p: number): number | null =>
        ranked && (weight ? weightedQuantile(ranked, n, p) : quantile(ranked, p));
      return {
        code,
        label,
        rows: all[g],
        valid: sum(ofGroup(plain.sums, g)),
        base: sum(counts),
        counts: kept.map(({ i }) => counts[i]),
        mean,
        sd,
        min: ranked ? ranked.values[0] : null,
        q1: at(0.25),
        median: at(0.5),
        q3: at(0.75),
        max: ranked ? ranked.values[ranked.values.length - 1] : null,
      };
    }),
  };
}

function groupsOf(
  by: Inspected | null,
  files: readonly { name: string; wave?: string }[],
): { code: string; label: string | null }[] {
  if (!by) return files.map(({ name, wave }) => ({ code: wave ?? name, label: null }));
  return validOf(by.levels).levels.map(({ code, label }) => ({ code, label }));
}
