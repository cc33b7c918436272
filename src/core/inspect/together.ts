import { largest } from '../tally/extent';
import { isCategorical } from '../extract/words';
import { validOf } from '../infer/levels';
import { moments } from '../tally/moments';
import { codeListOf } from './summary';
import type { Inspected } from './inspected';

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
  for (const level of [...levels].sort((a, b) => b.length - a.length).flatMap((list) => [...list]))
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
