import { reasonOfLabel } from '../codebook/missing-words';
import type { CodebookEntry } from '../extract/extract';
import { heldByFile, type InFile } from '../rows/by-file';
import { isDateStorage, type Reason } from '../extract/words';
import { gateOfTexts, saidOf } from '../flags/between/gates';
import type { Flag } from '../flags/rule';
import { isoText } from '../infer/dates';
import { levelAt, type Level, type LevelList } from '../infer/level-list';
import { spellingsOf, validOf } from '../infer/levels';
import { familyOf } from '../infer/stem';
import type { Inspected } from './inspected';
import type { Inspector } from './inspect';
import { cellOf, type Cell } from './record';

/** A bar of the distribution: a code, or a stretch of values. */
export interface EvidenceBar {
  name: string;
  count: number;
  suspect: boolean;
  /** Whether values are passed over between this bar and the one before. */
  apart: boolean;
}

/** What a flag rests on, to be drawn and read. */
export interface Evidence {
  variable: string;
  bars: EvidenceBar[];
  /** Valid rows that the bars stand for, suspects among them. */
  base: number;
  /** The suspects between their neighbours, in value order. */
  near: { code: string; label: string | null; count: number; suspect: boolean }[];
  /** What the codebook says of the variable and of the suspects, a sentence each. */
  codebook: string[];
  /** Variables of the same stem that hold the suspects too; rows that do, of all their rows. */
  siblings: { name: string; label: string | null; rows: number }[];
  /** Of how many siblings. */
  family: number;
  /** Rows that hold the suspects, by wave or file; empty where there is but one. */
  waves: InFile[];
  /** Rows that the flag is about, or some that hold the suspects; with the cells that matter. */
  rows: { row: number; cells: Cell[] }[];
  /** Why suspects would be missing, by their labels, or because they stand just where another variable shuts the question, or because siblings declare them so. */
  reasons: ReadonlyMap<string, Reason>;
  /** Where such a code stands, a sentence each. */
  gates: string[];
}

/** Up to this many codes each have a bar; more are put into stretches. */
const MOST_CODES = 40;
const STRETCHES = 32;
const MOST_SUSPECTS = 6;
const MOST_NEAR = 10;
const MOST_ROWS = 4;
const MOST_CELLS = 4;
const MOST_SIBLINGS = 8;
/** A code of fewer rows, as a share of all, may stand where it does by chance. */
const LEAST_NOT_ASKED = 0.02;
/** Steps that are this many times the usual one are a gap. */
const GAP = 2.5;

/** @returns `null` where the flag is about a variable that is not there */
export async function evidenceOf(flag: Flag, inspector: Inspector): Promise<Evidence | null> {
  const { extract, variables, records, within } = inspector;
  const [name] = flag.variables;
  const subject = name === undefined ? undefined : inspector.named(name);
  if (name !== undefined && !subject) return null;
  const suspects = subject ? suspectsOf(subject, flag.codes) : [];
  const texts = suspects.flatMap((level) => [...spellingsOf(level)]);
  const column = subject && extract.variables[subject.position - 1].column;
  const rows = flag.at?.length
    ? flag.at.slice(0, MOST_ROWS)
    : subject && texts.length
      ? (await records.firstRows(subject.name, [texts], MOST_ROWS, within))[0]
      : [];
  const shown = cellsShown(flag, variables);
  const cells = await records.cells(
    rows,
    shown.map((one) => one.name),
  );
  const family =
    name === undefined
      ? []
      : familyOf(
          name,
          variables.map((one) => one.name),
        )
          .filter((one) => one !== name)
          .flatMap((one) => inspector.named(one) ?? []);
  const gates = subject && flag.severity !== 'note' ? gatesOfCodes(subject, suspects, inspector) : [];
  return {
    variable: name ?? '',
    bars:
      subject && ['identifier', 'text'].includes(subject.kind)
        ? []
        : subject
          ? barsOf(subject, suspects)
          : [],
    base: subject ? validOf(subject.levels).rows : 0,
    near: subject ? nearOf(subject, suspects) : [],
    codebook: subject ? codebookSays(subject.entry, suspects, flag.codes) : [],
    siblings: family
      .map((one) => ({
        name: one.name,
        label: one.label,
        rows: suspectsOf(one, flag.codes).reduce((sum, { count }) => sum + count, 0),
      }))
      .filter(({ rows: holding }) => holding > 0)
      .slice(0, MOST_SIBLINGS),
    family: family.length,
    waves: column && texts.length && extract.files.length > 1 ? heldByFile(column, extract.files, texts) : [],
    rows: rows.map((row, i) => ({ row, cells: shown.map((one, k) => cellOf(one, cells[i][k])) })),
    reasons: new Map([
      ...suspects.flatMap(({ code }) => declaredIn(family, code).map((reason) => [code, reason] as const)),
      ...gates.map(({ code }) => [code, 'not-asked'] as const),
      ...suspects.flatMap(({ code, label }) => {
        const reason = label === null ? null : reasonOfLabel(label);
        return reason ? [[code, reason] as const] : [];
      }),
    ]),
    gates: gates.map(({ says }) => says),
  };
}

/** Suspects that stand in just the rows that another variable shuts: they stand for "not asked". */
function gatesOfCodes(
  subject: Inspected,
  suspects: LevelList,
  { whole }: Inspector,
): { code: string; says: string }[] {
  return suspects.slice(0, MOST_SUSPECTS).flatMap((level) => {
    if (level.standing !== 'valid' || level.count < whole.extract.rows * LEAST_NOT_ASKED) return [];
    const gate = gateOfTexts(whole, subject.position - 1, new Set(spellingsOf(level)));
    return gate
      ? [
          {
            code: level.code,
            says: `${level.code} stands just where the question was not asked; it was ${saidOf(gate, whole.subjects)}${gate.breaches.length ? `, but for ${gate.breaches.length} ${gate.breaches.length === 1 ? 'row' : 'rows'}` : ''}.`,
          },
        ]
      : [];
  });
}

/** The reason for which a code is declared missing in the first sibling that declares it. */
function declaredIn(family: readonly Inspected[], code: string): Reason[] {
  for (const { levels } of family) {
    const level = levels.levels.find(
      (one) => one.code === code && (one.standing === 'missing' || one.standing === 'not-asked'),
    );
    if (level?.reason) return [level.reason];
  }
  return [];
}

const suspectsOf = ({ levels: { levels } }: Inspected, codes: readonly string[]): Level[] => {
  const wanted = new Set(codes);
  return levels.filter((level) => wanted.has(level.code) || level.spellings.some((text) => wanted.has(text)));
};

/** What identifies a row, then what the flag is about; the first variables where it is about rows as a whole. */
function cellsShown({ variables: names }: Flag, variables: readonly Inspected[]): Inspected[] {
  const identifier = variables.find(({ role, kind }) => role === 'identifier' || kind === 'identifier');
  const about = variables.filter(({ name }) => names.includes(name));
  return [...new Set([...(identifier ? [identifier] : []), ...(about.length ? about : variables)])].slice(
    0,
    MOST_CELLS,
  );
}

function barsOf(subject: Inspected, suspects: LevelList): EvidenceBar[] {
  const { levels } = validOf(subject.levels);
  const marked = new Set(suspects);
  const all = [...new Set([...levels, ...suspects])].sort(
    (a, b) => (a.value ?? Infinity) - (b.value ?? Infinity),
  );
  const numeric = levels.length > 0 && levels.every(({ value }) => value !== null);
  if (all.length <= MOST_CODES) {
    const shown = numeric ? all : [...all].sort((a, b) => b.count - a.count);
    const usual = stepOf(levels);
    return shown.map((level, i) => ({
      name: named(level),
      count: level.count,
      suspect: marked.has(level),
      apart: numeric && i > 0 && (level.value ?? 0) - (shown[i - 1].value ?? 0) > usual * GAP,
    }));
  }
  if (!numeric)
    return [...all]
      .sort((a, b) => Number(marked.has(b)) - Number(marked.has(a)) || b.count - a.count)
      .slice(0, MOST_CODES)
      .map((level) => ({ name: named(level), count: level.count, suspect: marked.has(level), apart: false }));
  // Stretches of the body, and the suspects each for itself at their place.
  const single = new Set(suspects.filter(({ value }) => value !== null).slice(0, MOST_SUSPECTS));
  const body = levels.filter((level) => !single.has(level));
  const [low, high] = [body[0]?.value ?? 0, body[body.length - 1]?.value ?? 0];
  // Whole numbers are told by whole steps, or some stretches would hold one number more than others.
  const whole = body.every(({ value }) => Number.isInteger(value));
  const width = whole ? Math.ceil((high - low + 1) / STRETCHES) : (high - low) / STRETCHES || 1;
  const counts = new Float64Array(whole ? Math.floor((high - low) / width) + 1 : STRETCHES);
  for (const { value, count } of body)
    counts[Math.min(counts.length - 1, Math.floor(((value ?? 0) - low) / width))] += count;
  const { storage } = subject.written;
  const edge = (x: number): string => (isDateStorage(storage) ? isoText(Math.round(x), storage) : short(x));
  const bars = Array.from(counts, (count, i) => ({
    from: low + i * width,
    bar: {
      name:
        whole && width === 1
          ? edge(low + i)
          : `${edge(low + i * width)} to ${edge(low + (i + 1) * width - (whole ? 1 : 0))}`,
      count,
      suspect: false,
      apart: false,
    },
  }));
  const alone = [...single].map((level) => ({
    from: level.value ?? 0,
    bar: {
      name: named(level),
      count: level.count,
      suspect: true,
      apart: (level.value ?? 0) < low - width || (level.value ?? 0) > high + width,
    },
  }));
  const inOrder = [...bars, ...alone].sort(
    (a, b) => a.from - b.from || Number(b.bar.suspect) - Number(a.bar.suspect),
  );
  // What stands apart below is told at the bar that follows it.
  return inOrder.map(({ from, bar }, i) => ({
    ...bar,
    apart:
      i > 0 &&
      ((bar.suspect && from > high && bar.apart) ||
        (inOrder[i - 1].from < low && (from === low || inOrder[i - 1].bar.apart))),
  }));
}

const named = ({ code, label }: Level): string => (label === null ? code : `${code}  ${label}`);
const short = (x: number): string => String(Number.isInteger(x) ? x : Number(x.toPrecision(4)));

/** The usual step from one value to the next: their median. */
function stepOf(levels: LevelList): number {
  const steps = levels
    .slice(1)
    .map(({ value }, i) => (value ?? 0) - (levelAt(levels, i).value ?? 0))
    .sort((a, b) => a - b);
  return steps.length ? steps[steps.length >> 1] : 1;
}

function nearOf(subject: Inspected, suspects: LevelList): Evidence['near'] {
  const marked = new Set(suspects);
  const levels = subject.levels.levels.filter(
    (level) => level.standing !== 'unreadable' || marked.has(level),
  );
  const places = levels.flatMap((level, i) => (marked.has(level) ? [i] : []));
  const told = (level: Level): Evidence['near'][number] => ({
    code: level.code,
    label: level.label,
    count: level.count,
    suspect: marked.has(level),
  });
  const numeric = suspects.length > 0 && suspects.every(({ value }) => value !== null);
  // Words have no neighbours: what most rows hold stands beside them.
  if (!numeric)
    return [
      ...suspects.slice(0, MOST_SUSPECTS),
      ...[...levels]
        .filter((level) => !marked.has(level))
        .sort((a, b) => b.count - a.count)
        .slice(0, 3),
    ].map(told);
  const shown = new Set(
    places.slice(0, MOST_SUSPECTS).flatMap((place) => [place - 2, place - 1, place, place + 1, place + 2]),
  );
  return levels
    .filter((_, i) => shown.has(i))
    .slice(0, MOST_NEAR)
    .map(told);
}

function codebookSays(entry: CodebookEntry | null, suspects: LevelList, codes: readonly string[]): string[] {
  if (!entry) return ['No codebook describes it.'];
  const { categories, validRanges, units } = entry;
  const known = new Set(categories.map(({ code }) => code));
  const listed = categories.filter(({ missing }) => !missing);
  const declared = categories.filter(({ missing }) => missing);
  const unknown = codes.filter((code) => !known.has(code));
  const one = ({ code, label }: { code: string; label: string | null }): string =>
    label ? `${code} ${label}` : code;
  return [
    ...(listed.length
      ? [
          `It lists ${listed.length} ${listed.length === 1 ? 'code' : 'codes'}: ${listed.slice(0, 5).map(one).join(', ')}${listed.length > 5 ? ` and ${listed.length - 5} more` : ''}${unknown.length && suspects.length ? `; ${unknown.slice(0, 3).join(', ')} is not among them` : ''}.`,
        ]
      : []),
    ...(declared.length ? [`It declares ${declared.slice(0, 5).map(one).join(', ')} as no answer.`] : []),
    ...(validRanges.length
      ? [
          `It calls ${validRanges.map(({ min, max }) => `${min ?? 'anything'} to ${max ?? 'anything'}`).join(', ')} valid.`,
        ]
      : []),
    ...(units ? [`Its units: ${units}.`] : []),
    ...(listed.length + declared.length + validRanges.length === 0
      ? ['It names no codes and no range.']
      : []),
  ];
}
