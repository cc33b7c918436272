import { isDateStorage, isNumericStorage, type Kind, type Storage } from '../extract/words';
import { endText } from '../recode/ends';
import type { Level } from '../infer/level-list';
import { validOf } from '../infer/levels';
import { roundBins, type Bins } from '../recode/bins';
import { stepOf, type Range } from '../recode/edges';
import type { Recode } from '../recode/recode';
import { becomesIn, recodeMisfit } from '../recode/recoded';
import { byLabels, equalParts, roundBands, type Group } from '../recode/starts';
import { drawnOf } from './drawn';
import { drawable, histogram } from '../tally/histogram';
import { quantile } from '../tally/quantile';
import type { Weighed } from '../tally/weighed';
import type { Inspector } from './inspect';
import type { CodeHeld } from './questions';
import { sourceOf } from './trials';

/** What trial recodes of a variable are made on. */
export interface Recodable {
  name: string;
  label: string | null;
  kind: Kind;
  storage: Storage;
  /** Levels in their order; the most frequent of very many. */
  codes: CodeHeld[];
  more: number;
  /** Rows that are there, and those with a valid answer. */
  rows: number;
  valid: number;
  /** The distribution, drawn on the scale of the values; without those that lie far out. */
  bars: { from: number; to: number; count: number }[];
  /** Of numbers, days and moments: the lowest and highest, and the least by which two differ. */
  scale: { low: number; high: number; step: number; bins: Bins } | null;
  /** Quick starts by range. */
  starts: { says: string; bands: Range[] }[];
  groups: Group[];
}

const MOST_CODES = 2000;

/** @returns `null` where there is no such variable */
export function recodableOf(inspector: Inspector, name: string): Recodable | null {
  const inspected = inspector.named(name);
  if (!inspected) return null;
  const { label, kind, counts, written, levels } = inspected;
  const valid = validOf(levels);
  const ranged =
    (isNumericStorage(written.storage) || isDateStorage(written.storage)) && valid.values.length > 0;
  const values = ranged ? valid.values.slice().sort() : valid.values;
  const step = isNumericStorage(written.storage) ? stepOf(values) : 1;
  const sorted = { values, counts: ranked(valid.values, valid.counts) };
  // What lies far out, and stray codes, neither squash the drawing nor make bands of nobody.
  const { body } = valid.ascending ? drawnOf(valid) : drawable(sorted);
  const usual = Float64Array.from(body.values);
  const shown =
    levels.levels.length <= MOST_CODES
      ? levels.levels
      : [...levels.levels].sort((a, b) => b.count - a.count).slice(0, MOST_CODES);
  return {
    name: inspected.name,
    label,
    kind,
    storage: written.storage,
    codes: shown.map((level): CodeHeld => ({
      code: level.code,
      label: level.label,
      count: level.count,
      standing: level.standing,
    })),
    more: levels.levels.length - shown.length,
    rows: counts.all,
    valid: counts.valid,
    bars: ranged ? barsOf(body, step) : [],
    scale: ranged ? { low: values[0], high: values[values.length - 1], step, bins: roundBins(usual) } : null,
    starts: ranged
      ? [
          { says: 'Quartiles', bands: equalParts(sorted, 4, step) },
          { says: 'Thirds', bands: equalParts(sorted, 3, step) },
          { says: 'Halves', bands: equalParts(sorted, 2, step) },
          ...(isNumericStorage(written.storage)
            ? [{ says: `Steps of ${roundBins(usual).size}`, bands: roundBands(usual, step) }]
            : []),
        ].filter(({ bands }) => bands.length > 1)
      : [],
    groups: byLabels([...valid.levels.slice(0, MOST_CODES)]),
  };
}

function barsOf(body: Weighed, step: number): Recodable['bars'] {
  const drawn = histogram(body, step >= 1);
  return drawn
    ? drawn.counts.map((count, i) => ({
        from: drawn.start + i * drawn.width,
        to: drawn.start + (i + 1) * drawn.width,
        count,
      }))
    : [];
}

/** The value in the middle of the rows of a stretch; `null` where it holds fewer than two values. */
export function middleOf(
  inspector: Inspector,
  name: string,
  from: number | null,
  to: number | null,
): number | null {
  const inspected = inspector.named(name);
  if (!inspected) return null;
  const { levels } = validOf(inspected.levels);
  const held = levels
    .flatMap(({ value, count }) =>
      value !== null && (from === null || value >= from) && (to === null || value <= to)
        ? [{ value, count }]
        : [],
    )
    .sort((a, b) => a.value - b.value);
  if (held.length < 2) return null;
  const median =
    quantile({ values: held.map(({ value }) => value), counts: held.map(({ count }) => count) }, 0.5) ??
    held[1].value;
  // Both halves hold a value.
  return held.find(({ value }, i) => i > 0 && value >= median)?.value ?? held[held.length - 1].value;
}

/** Counts in the ascending order of their values, whatever order a person gave the codes. */
function ranked(values: Float64Array, counts: Float64Array): Float64Array {
  const order = Uint32Array.from(values, (_, i) => i).sort((a, b) => values[a] - values[b]);
  return Float64Array.from(order, (i) => counts[i]);
}

/** What a recode would make of the rows that count; nothing is decided by asking. */
export interface RecodePreview {
  /** Why it cannot be made; `null` where it can. */
  misfit: string | null;
  /** The codes that it would have, in their order, with rows and lowest and highest value that each holds. */
  codes: { code: string; label: string | null; rows: number; from: string | null; to: string | null }[];
  /** Rows with a valid answer that come into no code. */
  none: number;
  /** Rows without a valid answer, which stay without one. */
  unanswered: number;
  /** Before and after: for each stretch or code of the source the rows that come into each code, and those that come into none. */
  cells: { says: string; rows: number[]; none: number }[];
}

/** Stretches of the source that are told apart beside what they become. */
const MOST_LINES = 24;

/** @param replaces the trial recode whose place it would take, if any */
export function recodePreviewOf(
  inspector: Inspector,
  recode: Recode,
  replaces: string | null,
): RecodePreview {
  const nothing: RecodePreview = { misfit: null, codes: [], none: 0, unanswered: 0, cells: [] };
  const whole = inspector.wholly(recode.of);
  const kept = inspector.named(recode.of);
  if (!whole || !kept) return { ...nothing, misfit: `there is no variable ${recode.of}` };
  const taken =
    inspector.extract.variables.some(({ name }) => name === recode.name) && recode.name !== replaces;
  const source = sourceOf(whole, inspector.decided);
  const misfit = taken ? `a variable has the name ${recode.name} already` : recodeMisfit(recode, source);
  if (misfit !== null) return { ...nothing, misfit };
  const counts = new Map(kept.levels.levels.map(({ code, count }) => [code, count]));
  const becomes = becomesIn(recode, source);
  const codes = new Map<string, { code: string; label: string | null; rows: number; held: Level[] }>();
  const held: { level: Level; rows: number; code: string | null }[] = [];
  let [none, answered] = [0, 0];
  whole.base.levels.forEach((level, place) => {
    const made = becomes[place];
    const rows = counts.get(level.code) ?? 0;
    if (made === null) {
      if (level.standing === 'valid') {
        none += rows;
        answered += rows;
        if (rows > 0) held.push({ level, rows, code: null });
      }
      return;
    }
    if (level.standing !== 'valid' && made.code === level.code) return;
    const known = codes.get(made.code);
    const one = known ?? { ...made, rows: 0, held: [] };
    if (!known) codes.set(made.code, one);
    one.rows += rows;
    answered += rows;
    if (rows > 0) {
      one.held.push(level);
      held.push({ level, rows, code: made.code });
    }
  });
  if ('bands' in recode)
    for (const { code, label } of recode.bands)
      if (!codes.has(code)) codes.set(code, { code, label: label ?? null, rows: 0, held: [] });
  const order = orderOf(recode, [...codes.values()]);
  const place = new Map(order.map(({ code }, i) => [code, i]));
  return {
    misfit: null,
    codes: order.map(({ code, label, rows, held: levels }) => {
      const values = levels.flatMap(({ value }) => (value === null ? [] : [value]));
      const end = (pick: (a: number, b: number) => number): string | null =>
        values.length === levels.length && values.length > 0
          ? endText(
              values.reduce((a, b) => pick(a, b)),
              whole.written.storage,
            )
          : null;
      return { code, label, rows, from: end(Math.min), to: end(Math.max) };
    }),
    none,
    unanswered: kept.counts.all - answered,
    cells: linesOf(held, place, order.length),
  };
}

function orderOf<T extends { code: string; held: Level[] }>(recode: Recode, made: T[]): T[] {
  if (!('bands' in recode)) return made;
  const place = new Map(recode.bands.map(({ code }, i) => [code, i]));
  const rank = ({ code }: T): number => place.get(code) ?? recode.bands.length;
  return made.sort((a, b) => rank(a) - rank(b));
}

/** Neighbouring levels are one line where they are too many; no line holds two codes unless it must. */
function linesOf(
  held: readonly { level: Level; rows: number; code: string | null }[],
  place: ReadonlyMap<string, number>,
  size: number,
): RecodePreview['cells'] {
  const lines: {
    first: Level;
    last: Level;
    codes: Set<string | null>;
    rows: number[];
    none: number;
    levels: number;
  }[] = [];
  const all = held.reduce((sum, { rows }) => sum + rows, 0);
  const enough = held.length <= MOST_LINES ? 0 : all / MOST_LINES;
  for (const { level, rows, code } of held) {
    const last = lines.at(-1);
    const full = !last || last.rows.reduce((sum, n) => sum + n, last.none) >= enough;
    const line =
      full || enough === 0 || !last.codes.has(code)
        ? {
            first: level,
            last: level,
            codes: new Set<string | null>(),
            rows: new Array<number>(size).fill(0),
            none: 0,
            levels: 0,
          }
        : last;
    if (line !== last) lines.push(line);
    line.last = level;
    line.codes.add(code);
    line.levels++;
    if (code === null) line.none += rows;
    else line.rows[place.get(code) ?? 0] += rows;
  }
  return lines.map(({ first, last, rows, none, levels }) => ({
    says:
      levels === 1 ? `${first.code}${first.label ? ` ${first.label}` : ''}` : `${first.code} to ${last.code}`,
    rows,
    none,
  }));
}
