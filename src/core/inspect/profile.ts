import { findRows } from '../extract/rows';
import type { CodebookEntry, Variable } from '../extract/extract';
import { isCategorical, isMeasure, type Kind } from '../extract/words';
import { isoText } from '../infer/dates';
import { spellingsOf, validOf, type Level } from '../infer/levels';
import type { Flag } from '../flags/rule';
import type { Asked } from './asked';
import { identityOf, type Identity } from './identity';
import { histogram, type Beyond, type Histogram } from '../tally/histogram';
import { drawnOf } from './drawn';
import { stemDisplay, type StemDisplay } from '../tally/stem';
import { documented, type Inspected } from './inspected';
import { countedBy, type Weighted } from './weighted';
import type { InspectedVariable } from './schema';

/** What is drawn of a variable: categories as bars, quantities as a histogram, days by year or month, texts not at all. */
export type Picture =
  | { form: 'bars'; bars: { code: string; label: string | null; count: number }[]; rest: number }
  /** `lengths`: of texts, their numbers of characters. */
  | { form: 'histogram'; histogram: Histogram; lengths?: true; beyond?: Beyond }
  | { form: 'periods'; by: 'year' | 'month' | 'day' | 'hour'; periods: { name: string; count: number }[] }
  | { form: 'none'; why: string };

/** A value at the edge with the first rows it stands in (one-based, of the data). */
export interface Extreme {
  code: string;
  label: string | null;
  count: number;
  rows: number[];
}

/** Everything that the profile of one variable shows. */
export interface Profile {
  variable: InspectedVariable;
  presumed: Kind;
  entry: Pick<CodebookEntry, 'question' | 'universe' | 'units' | 'notes'> | null;
  picture: Picture;
  lowest: Extreme[];
  highest: Extreme[];
  texts: { shortest: number; longest: number; withBlanks: number } | null;
  /** What stands in the first and the last row; for identifiers. */
  ends: { first: string; last: string } | null;
  flags: Flag[];
  /** Every value, of quantities. */
  stem: StemDisplay | null;
  /** The category in the middle, of ordered ones. */
  middle: string | null;
  /** What it comes to by the weight in force, which is then drawn too. */
  weighted: Weighted | null;
  /** Who was asked, where that hangs on another variable. */
  asked: Asked | null;
  /** Stretches between the first and the last date that no row has; in the unit in which they are drawn. */
  gaps: Gap[];
  /** What identifiers look like. */
  identity: Identity | null;
}

/** A stretch without rows: its first and last period, and how many there are. */
export interface Gap {
  from: string;
  to: string;
  periods: number;
}

/** More bars than this cannot be told apart; the rarest go together. */
const MOST_BARS = 40;
const EXTREMES = 5;
const ROWS_SHOWN = 3;

/** @param binWidth of the histogram, where a person chose one @param all whether what lies far out is drawn too @param weighted by the weight in force, if one is @param asked who was, if that is known */
export function profileOf(
  variable: Variable,
  inspected: Inspected,
  flags: readonly Flag[],
  {
    binWidth = null,
    all = false,
    weighted = null,
    asked = null,
  }: { binWidth?: number | null; all?: boolean; weighted?: Weighted | null; asked?: Asked | null } = {},
): Profile {
  const valid = validOf(inspected.levels).levels;
  const { entry, kind } = inspected;
  const told = documented(inspected);
  const { q1, q3 } = told.statistics;
  const drawn = weighted ? countedBy(inspected, weighted) : inspected;
  const picture = pictureOf(drawn, validOf(drawn.levels).levels, binWidth, all);
  const edges = isMeasure(kind) || kind === 'date' ? valid.filter(({ value }) => value !== null) : [];
  return {
    variable: told,
    presumed: inspected.presumed,
    entry: entry && {
      question: entry.question,
      universe: entry.universe,
      units: entry.units,
      notes: entry.notes,
    },
    picture,
    stem:
      isMeasure(kind) && q1 !== null && q3 !== null ? stemDisplay(validOf(inspected.levels), [q1, q3]) : null,
    lowest: extremes(variable, edges.slice(0, EXTREMES)),
    highest: extremes(variable, edges.slice(-EXTREMES).reverse()),
    texts: inspected.written.storage === 'text' ? textFigures(valid) : null,
    ends:
      kind === 'identifier' && variable.column.rows > 0
        ? { first: variable.column.text(0), last: variable.column.text(variable.column.rows - 1) }
        : null,
    // Whom a variable gates is told where those are.
    flags: flags.filter(({ rule, variables }) =>
      rule === 'universe-gate' ? variables[0] === inspected.name : variables.includes(inspected.name),
    ),
    middle: kind === 'ordinal' ? middleOf(valid) : null,
    weighted,
    asked,
    gaps: gapsOf(inspected, valid),
    identity: kind === 'identifier' ? identityOf(valid) : null,
  };
}

/** The first category that half of the rows do not lie above. */
function middleOf(valid: readonly Level[]): string | null {
  const rows = valid.reduce((sum, { count }) => sum + count, 0);
  let below = 0;
  for (const { code, label, count } of valid)
    if ((below += count) >= rows / 2) return label === null ? code : `${code}  ${label}`;
  return null;
}

function extremes(variable: Variable, levels: readonly Level[]): Extreme[] {
  const rows = findRows(variable.column, levels.map(spellingsOf), ROWS_SHOWN);
  return levels.map(({ code, label, count }, i) => ({
    code,
    label,
    count,
    rows: rows[i].map((row) => row + 1),
  }));
}

function lengths(valid: readonly Level[]): Picture {
  const byLength = new Map<number, number>();
  for (const { code, count } of valid) byLength.set(code.length, (byLength.get(code.length) ?? 0) + count);
  const values = [...byLength.keys()].sort((a, b) => a - b);
  const drawn = histogram({ values, counts: values.map((value) => byLength.get(value) ?? 0) }, true);
  return drawn
    ? { form: 'histogram', histogram: drawn, lengths: true }
    : { form: 'none', why: 'There is no text to measure.' };
}

function textFigures(valid: readonly Level[]): Profile['texts'] {
  if (valid.length === 0) return null;
  let shortest = Infinity;
  let longest = 0;
  let withBlanks = 0;
  for (const { code, count } of valid) {
    shortest = Math.min(shortest, code.length);
    longest = Math.max(longest, code.length);
    if (/\S\s+\S/.test(code)) withBlanks += count;
  }
  return { shortest, longest, withBlanks };
}

export function pictureOf(
  { kind, written, levels }: Inspected,
  valid: readonly Level[],
  binWidth: number | null = null,
  all = false,
): Picture {
  if (valid.length === 0) return { form: 'none', why: 'There is no valid value to draw.' };
  if (isCategorical(kind)) return bars(kind, valid);
  if (isMeasure(kind)) {
    const values = validOf(levels);
    const { body, beyond } = all ? { body: values, beyond: null } : drawnOf(values);
    const drawn = histogram(body, written.storage === 'integer', binWidth);
    return drawn ? { form: 'histogram', histogram: drawn, ...(beyond ? { beyond } : {}) } : bars(kind, valid);
  }
  if (kind === 'date') return periods(written.storage, valid);
  if (kind === 'text') return lengths(valid);
  return {
    form: 'none',
    why: kind === 'identifier' ? alike(valid) : 'Free text has no distribution to draw.',
  };
}

function alike(valid: readonly Level[]): string {
  const rows = valid.reduce((sum, { count }) => sum + count, 0);
  return rows === valid.length
    ? 'Every row has a value of its own.'
    : `It names ${valid.length} units, each in ${(rows / valid.length).toFixed(1)} rows on average.`;
}

/** Ordinal categories in their order; nominal ones too where they are coded or few, else the most frequent first. */
function bars(kind: Kind, valid: readonly Level[]): Picture {
  const coded = valid.every(({ value, label }) => value !== null || label !== null);
  const order = kind === 'nominal' && !coded ? [...valid].sort((a, b) => b.count - a.count) : [...valid];
  const shown =
    order.length <= MOST_BARS ? order : [...valid].sort((a, b) => b.count - a.count).slice(0, MOST_BARS);
  const rest =
    valid.reduce((sum, { count }) => sum + count, 0) - shown.reduce((sum, { count }) => sum + count, 0);
  return { form: 'bars', bars: shown.map(({ code, label, count }) => ({ code, label, count })), rest };
}

const PERIODS = { day: 10, month: 7, year: 4, hour: 2 } as const;

/** Rows per day, month or year, whichever gives at most 40; times of day per hour. Periods without rows are there with 0. */
function periods(storage: string, valid: readonly Level[]): Picture {
  const dated = valid.filter(({ value }) => value !== null);
  if (storage !== 'date' && storage !== 'datetime' && storage !== 'time') {
    // A number that a person confirmed as a date, such as a year, stands for its own period.
    return {
      form: 'periods',
      by: 'year',
      periods: dated.slice(0, 200).map(({ code, count }) => ({ name: code, count })),
    };
  }
  const texts = dated.map(({ value, count }) => [isoText(value as number, storage), count] as const);
  const by =
    storage === 'time'
      ? 'hour'
      : ((['day', 'month', 'year'] as const).find(
          (period) => new Set(texts.map(([text]) => text.slice(0, PERIODS[period]))).size <= 40,
        ) ?? 'year');
  const counts = new Map<string, number>();
  for (const [text, count] of texts) {
    const name = text.slice(0, PERIODS[by]);
    counts.set(name, (counts.get(name) ?? 0) + count);
  }
  const names = [...counts.keys()];
  const all = between(names[0], names[names.length - 1], by);
  return {
    form: 'periods',
    by,
    periods: (all.length > MOST_PERIODS ? names : all).map((name) => ({
      name,
      count: counts.get(name) ?? 0,
    })),
  };
}

/** Stretches without rows between the first and the last period, where periods can be counted out. */
function gapsOf({ kind, written: { storage } }: Inspected, valid: readonly Level[]): Gap[] {
  if (kind !== 'date') return [];
  const picture = periods(storage, valid);
  if (picture.form !== 'periods' || picture.by === 'hour') return [];
  const counts = new Map(picture.periods.map(({ name, count }) => [name, count]));
  const names = [...counts.keys()];
  const gaps: Gap[] = [];
  for (const name of between(names[0] ?? '', names[names.length - 1] ?? '', picture.by, Infinity)) {
    const open = gaps[gaps.length - 1];
    if ((counts.get(name) ?? 0) > 0) gaps.push({ from: '', to: '', periods: 0 });
    else if (open && open.periods > 0) Object.assign(open, { to: name, periods: open.periods + 1 });
    else gaps.push({ from: name, to: name, periods: 1 });
  }
  return gaps.filter(({ periods: number }) => number > 0);
}

/** More periods than this, empty ones included, cannot be drawn; then the empty ones are left out. */
const MOST_PERIODS = 130;

/** All periods from the first to the last; by default at most one more than can be drawn. */
function between(
  first: string,
  last: string,
  by: 'year' | 'month' | 'day' | 'hour',
  most = MOST_PERIODS,
): string[] {
  const steps: string[] = [];
  if (by === 'hour') {
    for (let hour = +first; hour <= +last; hour++) steps.push(String(hour).padStart(2, '0'));
    return steps;
  }
  const date = new Date(`${first}${'-01-01'.slice(0, 10 - first.length)}T00:00:00Z`);
  for (
    let name = first;
    name <= last && steps.length <= most;
    name = date.toISOString().slice(0, PERIODS[by])
  ) {
    steps.push(name);
    if (by === 'year') date.setUTCFullYear(date.getUTCFullYear() + 1);
    else if (by === 'month') date.setUTCMonth(date.getUTCMonth() + 1);
    else date.setUTCDate(date.getUTCDate() + 1);
  }
  return steps;
}
