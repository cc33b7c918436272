import type { Extract } from '../extract/extract';
import { isCategorical, type Kind } from '../extract/words';
import { linkCodebooks } from '../codebook/link';
import { waveDrift } from '../flags/rows/wave-drift';
import type { Level, LevelList } from '../infer/level-list';
import { validOf } from '../infer/levels';
import { withFiles } from '../intake/rejoin';
import type { Inspected } from './inspected';
import { Inspector } from './inspect';
import { putUnder } from '../extract/put-under';

/** A variable that only one of two extracts has. */
export interface Lone {
  name: string;
  label: string | null;
  kind: Kind;
  /** Of the other extract's lone variables the one that has its label, or its list of codes: it may be the same under another name. */
  like: string | null;
}

/** A variable that both have, and that is another in the later one. */
interface Altered {
  name: string;
  label: string | null;
  /** What changed, in words; what changes figures first. */
  says: string[];
}

/** Two extracts beside each other: the earlier one, and the one that follows it. */
export interface Beside {
  earlier: { name: string; rows: number; variables: number };
  later: { name: string; rows: number; variables: number };
  came: Lone[];
  went: Lone[];
  changed: Altered[];
  /** Variables that are in both and the same as far as is seen. */
  same: number;
}

/** A code is expected so often where it is not before its absence says anything. */
const EXPECTED = 12;
/** Longer lists of codes are no lists. */
const MOST_CODES = 200;
/** Shares of rows without an answer differ by at least this to be told. */
const BLANKS = 0.1;
const MOST_TOLD = 8;

/**
 * @param drifted what the evidence of a drift between waves says of variables, by their names
 * @param earlier @param later each under its own rulings
 */
export function besideOf(
  earlier: Inspector,
  later: Inspector,
  drifted: ReadonlyMap<string, readonly string[]>,
): Beside {
  const before = new Map(earlier.variables.map((one) => [one.name, one]));
  const now = new Map(later.variables.map((one) => [one.name, one]));
  const lone = (own: ReadonlyMap<string, Inspected>, others: ReadonlyMap<string, Inspected>): Inspected[] =>
    [...own.values()].filter(({ name, trial }) => !others.has(name) && trial === undefined);
  const [came, went] = [lone(now, before), lone(before, now)];
  const changed: Altered[] = [];
  let same = 0;
  for (const one of now.values()) {
    const was = before.get(one.name);
    if (!was) continue;
    const says = [...(drifted.get(one.name) ?? []), ...alterations(was, one)];
    if (says.length) changed.push({ name: one.name, label: one.label, says });
    else same++;
  }
  const told = (inspector: Inspector): Beside['earlier'] => ({
    name: inspector.extract.name,
    rows: inspector.rowCounts.kept,
    variables: inspector.variables.length,
  });
  return {
    earlier: told(earlier),
    later: told(later),
    came: came.map((one) => loneOf(one, went)),
    went: went.map((one) => loneOf(one, came)),
    changed,
    same,
  };
}

/** Both extracts as two waves of one, by which a drift between them shows; rulings are those of the later one. */
export function asWaves(earlier: Inspector, later: Inspector): Inspector {
  const names = [earlier.extract.name, later.extract.name];
  const [a, b] = names[0] === names[1] ? [`${names[0]} (earlier)`, `${names[1]} (later)`] : names;
  const joined = withFiles(asOneFile(earlier.received, a), asOneFile(later.received, b));
  const inspector = new Inspector(linkCodebooks(joined, later.received.codebooks));
  inspector.lay({ ...later.decided, sieve: null, aside: [], corrections: [], added: [], recodes: new Map() });
  return inspector;
}

/** What the drift between two waves says, by variable. */
export function driftsOf(joined: Inspector): Map<string, string[]> {
  const says = new Map<string, string[]>();
  for (const flag of waveDrift.look(joined.whole))
    for (const name of flag.variables) putUnder(says, name, flag.says);
  return says;
}

function asOneFile(extract: Extract, name: string): Extract {
  const [first] = extract.files;
  return {
    ...extract,
    files: [
      {
        ...first,
        name,
        wave: name,
        rows: extract.rows,
        columns: extract.variables.length,
        names: extract.variables.map((variable) => variable.name),
        notices: [],
      },
    ],
  };
}

const labelOf = ({ label }: Inspected): string => label?.trim().toLowerCase() ?? '';
/** The labels of a variable's codes as one text; empty where fewer than two are labelled. */
function listOf({ entry }: Inspected): string {
  const labelled = (entry?.categories ?? []).filter(({ label }) => label !== null);
  return labelled.length < 2 ? '' : labelled.map(({ code, label }) => `${code}=${label ?? ''}`).join('|');
}

function loneOf(one: Inspected, others: readonly Inspected[]): Lone {
  const alike = others.filter(
    (other) =>
      (labelOf(one) !== '' && labelOf(one) === labelOf(other)) ||
      one.name.toLowerCase() === other.name.toLowerCase(),
  );
  const listed = others.filter((other) => listOf(one) !== '' && listOf(one) === listOf(other));
  const [like] = alike.length ? alike : listed.length === 1 ? listed : [];
  return { name: one.name, label: one.label, kind: one.kind, like: like?.name ?? null };
}

/** What is another of a variable that both extracts have. */
function alterations(was: Inspected, now: Inspected): string[] {
  const says: string[] = [];
  if (was.kind !== now.kind) says.push(`${kindOf(now)}, and ${kindOf(was)} before`);
  else if (was.written.storage !== now.written.storage)
    says.push(`written as ${now.written.storage}, and as ${was.written.storage} before`);
  // A wave is another one by itself.
  if (now.role !== 'wave') says.push(...codesOf(was, now));
  says.push(...labelsOf(was, now));
  if (labelOf(was) !== labelOf(now))
    says.push(
      was.label === null
        ? `has a label now: “${now.label ?? ''}”`
        : now.label === null
          ? `has lost its label “${was.label}”`
          : `called “${now.label}”, and “${was.label}” before`,
    );
  const [question, asked] = [was.entry?.question?.trim() ?? '', now.entry?.question?.trim() ?? ''];
  if (question !== asked && question !== '' && asked !== '')
    says.push(`asked “${asked}”, and “${question}” before`);
  const without = ({ counts }: Inspected): number =>
    counts.all ? (counts.all - counts.valid) / counts.all : 0;
  if (Math.abs(without(was) - without(now)) >= BLANKS)
    says.push(
      `without a valid answer in ${percent(without(now))} of 100 rows, and in ${percent(without(was))} before`,
    );
  return says;
}

const kindOf = ({ kind, confirmed }: Inspected): string => `${confirmed ? '' : 'presumed '}${kind}`;
const percent = (share: number): string =>
  String(share > 0 && share < 0.01 ? (share * 100).toFixed(1) : Math.round(share * 100));

/** Codes that came, and those that went and are missed. */
function codesOf(was: Inspected, now: Inspected): string[] {
  const [before, after] = [validOf(was.levels), validOf(now.levels)];
  if (
    !isCategorical(was.kind) ||
    !isCategorical(now.kind) ||
    before.levels.length > MOST_CODES ||
    after.levels.length > MOST_CODES
  )
    return missingOf(was, now);
  const known = new Set(was.levels.levels.flatMap(spelt));
  const there = new Set(now.levels.levels.flatMap(spelt));
  const came = after.levels.filter((level) => !spelt(level).some((code) => known.has(code)));
  const went = before.levels.filter(
    (level) =>
      !spelt(level).some((code) => there.has(code)) &&
      (level.count / Math.max(1, before.rows)) * after.rows >= EXPECTED,
  );
  return [
    ...(came.length ? [`holds ${listed(came)}, which no row held before`] : []),
    ...(went.length ? [`no row holds ${listed(went)} any more`] : []),
    ...missingOf(was, now),
  ];
}

/** Codes that are missing in one and valid in the other, or told for the first time. */
function missingOf(was: Inspected, now: Inspected): string[] {
  const missing = ({ levels }: Inspected): Level[] =>
    levels.levels.filter(({ standing }) => standing === 'missing' || standing === 'not-asked');
  const valid = new Set(validOf(was.levels).levels.flatMap(spelt));
  const validNow = new Set(validOf(now.levels).levels.flatMap(spelt));
  const lost = missing(was).filter((level) => spelt(level).some((code) => validNow.has(code)));
  const turned = missing(now).filter((level) => spelt(level).some((code) => valid.has(code)));
  return [
    ...(turned.length ? [`${listed(turned)} missing now, and valid before`] : []),
    ...(lost.length ? [`${listed(lost)} valid now, and missing before`] : []),
  ];
}

/** Codes with another label. */
function labelsOf(was: Inspected, now: Inspected): string[] {
  const before = new Map(was.levels.levels.map(({ code, label }) => [code, label]));
  return now.levels.levels
    .flatMap(({ code, label }) => {
      const had = before.get(code);
      return had && label && had.trim().toLowerCase() !== label.trim().toLowerCase()
        ? [`${code} is “${label}”, and “${had}” before`]
        : [];
    })
    .slice(0, MOST_TOLD);
}

const spelt = ({ code, spellings }: Level): readonly string[] => [code, ...spellings];

const listed = (levels: LevelList): string => {
  const told = levels
    .slice(0, MOST_TOLD)
    .map(
      ({ code, label, count }) =>
        `${code}${label === null ? '' : ` ${label}`} (${count} ${count === 1 ? 'row' : 'rows'})`,
    );
  return `${told.join(', ')}${levels.length > MOST_TOLD ? ` and ${levels.length - MOST_TOLD} more` : ''}`;
};
