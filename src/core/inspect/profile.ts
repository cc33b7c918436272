import type { CodebookEntry } from '../extract/extract';
import { isCategorical, isMeasure, type Kind } from '../extract/words';
import type { LevelList } from '../infer/level-list';
import { spellingsOf, validOf } from '../infer/levels';
import type { Flag } from '../flags/rule';
import type { Asked } from './asked';
import { identityOf, type Identity } from './identity';
import { histogram, type Beyond, type Histogram } from '../tally/histogram';
import { drawnOf } from './drawn';
import { stemDisplay, type StemDisplay } from '../tally/stem';
import type { Inspector } from './inspect';
import { documented, type Inspected } from './inspected';
import { asWeight, countedBy, type AsWeight, type Weighted } from './weighted';
import { gapsOf, periodsOf, type Counted, type Gap } from './periods';
import type { InspectedVariable } from './schema';

/** What is drawn of a variable: categories as bars, quantities as a histogram, days by year or month, texts not at all. */
export type Picture =
  | { form: 'bars'; bars: { code: string; label: string | null; count: number }[]; rest: number }
  /** `lengths`: of texts, their numbers of characters. */
  | { form: 'histogram'; histogram: Histogram; lengths?: true; beyond?: Beyond }
  | ({ form: 'periods' } & Counted)
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
  /** What it is worth as a weight, where it is one. */
  weight: AsWeight | null;
  /** Who was asked, where that hangs on another variable. */
  asked: Asked | null;
  /** Stretches between the first and the last date that no row has; in the unit in which they are drawn. */
  gaps: Gap[];
  /** What identifiers look like. */
  identity: Identity | null;
}

/** More bars than this cannot be told apart; the rarest go together. */
const MOST_BARS = 40;
const EXTREMES = 5;
const ROWS_SHOWN = 3;

/** How the distribution is drawn. */
export interface Drawing {
  /** Of the histogram, where a person chose one. */
  binWidth?: number | null;
  /** Whether what lies far out is drawn too. */
  all?: boolean;
}

/** @param flags in force @returns `null` where the extract has no such variable */
export async function profileOf(
  inspector: Inspector,
  name: string,
  { binWidth = null, all = false }: Drawing = {},
  flags: readonly Flag[] = inspector.flags,
): Promise<Profile | null> {
  const inspected = inspector.named(name);
  if (!inspected) return null;
  const { records, within } = inspector;
  const weighted = inspector.weighted(name);
  const valid = validOf(inspected.levels).levels;
  const { entry, kind } = inspected;
  const told = documented(inspected);
  const { q1, q3 } = told.statistics;
  const drawn = weighted ? countedBy(inspected, weighted) : inspected;
  const picture = pictureOf(drawn, validOf(drawn.levels).levels, binWidth, all);
  const extremes = async (levels: LevelList): Promise<Extreme[]> => {
    const rows = await records.firstRows(name, levels.map(spellingsOf), ROWS_SHOWN, within);
    return levels.map(({ code, label, count }, i) => ({
      code,
      label,
      count,
      rows: rows[i].map((row) => row + 1),
    }));
  };
  const ends = async (): Promise<Profile['ends']> => {
    const [[first], [last]] = await records.cells([0, records.rows - 1], [name]);
    return { first, last };
  };
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
    lowest: await extremes(edges.slice(0, EXTREMES)),
    highest: await extremes(edges.slice(-EXTREMES).reverse()),
    texts: inspected.written.storage === 'text' ? textFigures(valid) : null,
    ends: kind === 'identifier' && records.rows > 0 ? await ends() : null,
    // Whom a variable gates is told where those are.
    flags: flags.filter(({ rule, variables }) =>
      rule === 'universe-gate' ? variables[0] === inspected.name : variables.includes(inspected.name),
    ),
    middle: kind === 'ordinal' ? middleOf(valid) : null,
    weighted,
    weight:
      inspected.role === 'weight' || inspector.weighting?.variable.name === name
        ? asWeight(inspected, inspector.weighting?.variable.name === name)
        : null,
    asked: inspector.asked(name),
    gaps: kind === 'date' ? gapsOf(inspected.written.storage, valid) : [],
    identity: kind === 'identifier' ? identityOf(valid) : null,
  };
}

/** The first category that half of the rows do not lie above. */
function middleOf(valid: LevelList): string | null {
  const rows = valid.reduce((sum, { count }) => sum + count, 0);
  let below = 0;
  for (const { code, label, count } of valid)
    if ((below += count) >= rows / 2) return label === null ? code : `${code}  ${label}`;
  return null;
}

function lengths(valid: LevelList): Picture {
  const byLength = new Map<number, number>();
  for (const { code, count } of valid) byLength.set(code.length, (byLength.get(code.length) ?? 0) + count);
  const values = [...byLength.keys()].sort((a, b) => a - b);
  const drawn = histogram({ values, counts: values.map((value) => byLength.get(value) ?? 0) }, true);
  return drawn
    ? { form: 'histogram', histogram: drawn, lengths: true }
    : { form: 'none', why: 'There is no text to measure.' };
}

function textFigures(valid: LevelList): Profile['texts'] {
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
  valid: LevelList,
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
  if (kind === 'date') return { form: 'periods', ...periodsOf(written.storage, valid) };
  if (kind === 'text') return lengths(valid);
  return {
    form: 'none',
    why: kind === 'identifier' ? alike(valid) : 'Free text has no distribution to draw.',
  };
}

function alike(valid: LevelList): string {
  const rows = valid.reduce((sum, { count }) => sum + count, 0);
  return rows === valid.length
    ? 'Every row has a value of its own.'
    : `It names ${valid.length} units, each in ${(rows / valid.length).toFixed(1)} rows on average.`;
}

/** Ordinal categories in their order; nominal ones too where they are coded or few, else the most frequent first. */
function bars(kind: Kind, valid: LevelList): Picture {
  const coded = valid.every(({ value, label }) => value !== null || label !== null);
  const order = kind === 'nominal' && !coded ? [...valid].sort((a, b) => b.count - a.count) : [...valid];
  const shown =
    order.length <= MOST_BARS ? order : [...valid].sort((a, b) => b.count - a.count).slice(0, MOST_BARS);
  const rest =
    valid.reduce((sum, { count }) => sum + count, 0) - shown.reduce((sum, { count }) => sum + count, 0);
  return { form: 'bars', bars: shown.map(({ code, label, count }) => ({ code, label, count })), rest };
}
