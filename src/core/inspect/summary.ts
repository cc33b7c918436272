import { largest } from '../tally/extent';
import {
  isCategorical,
  isMeasure,
  isNumericStorage,
  type Kind,
  type Role,
  type Storage,
} from '../extract/words';
import { bodyOf } from '../infer/edges';
import { validOf, type Counts, type Levels } from '../infer/levels';
import { drawable, histogram } from '../tally/histogram';
import { drawnOf } from './drawn';
import { mostFrequent } from './figures';
import type { Inspected } from './inspected';

/** A distribution small enough to stand in a line: heights from 0 to 1. `apart`: categories; otherwise neighbours touch. */
export interface Sketch {
  apart: boolean;
  heights: number[];
}

/** What the ledger shows of a variable. */
export interface Summary {
  name: string;
  position: number;
  label: string | null;
  storage: Storage;
  kind: Kind;
  presumed: Kind;
  confirmed: boolean;
  confidence: number;
  because: string[];
  role: Role;
  counts: Counts;
  sketch: Sketch | null;
  /** What else can be searched for: the question, the labels of codes, the archive's own label. */
  words: string;
  /** The label that the archive gives, where a person gave another. */
  archiveLabel: string | null;
  /** The variable that it is a trial recode of; `null` for a received one. */
  trial: string | null;
  /** How variables with the same list of codes know each other; `null` without one. */
  codeList: string | null;
  /** Zero-based places of the files that hold anything of it; `null` where there is but one file. */
  inFiles: number[] | null;
  /** The most frequent valid values with their shares of valid rows; none where no two rows are alike. */
  values: { code: string; share: number }[];
  /** The lowest and the highest value of quantities and dates that take many. */
  /** Whether the number of distinct values is an estimate. */
  estimated: boolean;
  span: { from: string; to: string } | null;
}

/** So many labels of codes can be searched for. */
const MOST_WORDS = 60;

const MOST_BARS = 24;

/** @param inFiles places of the files that hold the variable, where there are several */
export function summaryOf(inspected: Inspected, inFiles: number[] | null = null): Summary {
  const { name, position, label, written, kind, presumed, confirmed, confidence, because, role, counts } =
    inspected;
  return {
    name,
    position,
    label,
    storage: written.storage,
    kind,
    presumed,
    confirmed,
    confidence,
    because,
    role,
    counts,
    sketch: sketched(inspected),
    words: wordsOf(inspected),
    archiveLabel: inspected.entry && inspected.entry.label !== label ? inspected.entry.label : null,
    trial: inspected.trial ?? null,
    codeList: codeListOf(inspected),
    inFiles,
    values: valuesOf(inspected),
    estimated: (inspected.passed?.error ?? 0) > 0,
    span: spanOf(inspected),
  };
}

const sketches = new WeakMap<Levels, { kind: Kind; sketch: Sketch | null }>();

/** A sketch, drawn once of the same levels and kind. */
function sketched(inspected: Inspected): Sketch | null {
  const { levels, kind } = inspected;
  const known = sketches.get(levels);
  if (known?.kind === kind) return known.sketch;
  const sketch = sketchOf(inspected);
  sketches.set(levels, { kind, sketch });
  return sketch;
}

/** So many values are shown in a line, each up to so many characters. */
const MOST_VALUES = 4;
const MOST_SIGNS = 40;
/** Quantities of more values than this are told by where they begin and end. */
const MANY_VALUES = 12;

function spanOf({ levels, kind, passed }: Inspected): Summary['span'] {
  const { levels: valid, ascending } = validOf(levels);
  if ((!isMeasure(kind) && kind !== 'date') || !ascending || valid.length <= MANY_VALUES) return null;
  // The ends of all rows, where these levels are of a sample.
  if (passed?.numbers) {
    const { min, max } = passed.numbers.ended;
    return { from: String(min), to: String(max) };
  }
  return { from: valid.code(0), to: valid.code(valid.length - 1) };
}

function valuesOf({ levels, counts, kind, passed }: Inspected): Summary['values'] {
  const { levels: valid } = validOf(passed?.levels ?? levels);
  // Of too many to count each, what stands in one row alone is no frequent value.
  if (passed && valid.counts.every((count) => count === 1)) return [];
  if (kind === 'identifier' || counts.valid === 0 || (valid.length === counts.valid && valid.length > 1))
    return [];
  return mostFrequent(valid, MOST_VALUES).map(({ code, count }) => ({
    code: code.length > MOST_SIGNS ? `${code.slice(0, MOST_SIGNS)}…` : code,
    share: count / counts.valid,
  }));
}

function wordsOf({ entry, levels, label }: Inspected): string {
  const labels = entry
    ? entry.categories.map((category) => category.label)
    : Array.from({ length: Math.min(MOST_WORDS, levels.levels.length) }, (_, place) =>
        levels.levels.label(place),
      );
  return [
    entry?.question,
    entry?.label === label ? null : entry?.label,
    ...labels.slice(0, MOST_WORDS),
    ...(entry?.notes ?? []),
  ]
    .filter((text) => text)
    .join(' | ')
    .toLowerCase();
}

/** Codes with their labels where a codebook lists at least three; else the values of a short scale. */
export function codeListOf({
  entry,
  levels,
  kind,
  written,
}: Pick<Inspected, 'entry' | 'levels' | 'kind' | 'written'>): string | null {
  const categories = entry?.categories.filter(({ label, missing }) => label !== null && !missing) ?? [];
  if (categories.length >= 3) return categories.map(({ code, label }) => `${code}=${label}`).join('|');
  const all = validOf(levels);
  // Codes for no answer that some items hold and others don't make no other list.
  const valid =
    isNumericStorage(written.storage) && all.ascending && all.values.length === all.levels.length
      ? bodyOf(all.levels)
      : all.levels;
  return isCategorical(kind) && valid.length >= 3 && valid.length <= 12
    ? `${written.storage}:${valid.map(({ code }) => code).join('|')}`
    : null;
}

function sketchOf({ kind, written, levels }: Inspected): Sketch | null {
  const { levels: valid } = validOf(levels);
  if (valid.length === 0 || kind === 'text' || kind === 'identifier') return null;
  if (isCategorical(kind)) {
    const counts = valid.map(({ count }) => count);
    const ordered =
      kind === 'nominal' && !isNumericStorage(written.storage) ? counts.sort((a, b) => b - a) : counts;
    return {
      apart: true,
      heights: scaled(ordered.length <= MOST_BARS ? ordered : ordered.slice(0, MOST_BARS)),
    };
  }
  const values = validOf(levels);
  if (!isMeasure(kind) && kind !== 'date') return null;
  const { body, beyond } = isMeasure(kind) ? drawnOf(values) : drawable(values);
  const drawn = histogram(body, isNumericStorage(written.storage) ? written.storage === 'integer' : true);
  if (!drawn) return null;
  // What lies far out stands at the end, apart, no higher than the highest of the rest.
  const shown = merged(drawn.counts);
  const most = largest(shown);
  const [below, above] = [beyond?.below?.rows ?? 0, beyond?.above?.rows ?? 0].map((rows) =>
    Math.min(rows, most),
  );
  return {
    apart: false,
    heights: scaled([...(below ? [below, 0] : []), ...shown, ...(above ? [0, above] : [])]),
  };
}

/** Neighbouring bars put together until they fit. */
function merged(counts: number[]): number[] {
  let bars = counts;
  while (bars.length > MOST_BARS)
    bars = Array.from({ length: Math.ceil(bars.length / 2) }, (_, i) => bars[2 * i] + (bars[2 * i + 1] ?? 0));
  return bars;
}

function scaled(counts: readonly number[]): number[] {
  const most = largest(counts);
  return counts.map((count) => Math.round((100 * count) / most) / 100);
}
