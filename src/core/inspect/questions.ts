import { readPasted, type PastedLine } from '../codebook/pasted';
import { isNumericStorage, type Kind, type Reason, type Storage } from '../extract/words';
import type { Standing } from '../infer/level-list';
import { spellingsOf, validOf, type Counts } from '../infer/levels';
import { familyOf } from '../infer/stem';
import { mostFrequent } from './figures';
import { documented } from './inspected';
import type { Inspector } from './inspect';
import { pictureOf, type Picture } from './profile';
import type { Statistics } from './schema';
import { codeListOf } from './summary';

/** A line of a list of codes, with what the variables at hand hold of the code. */
export interface UnderstoodLine extends PastedLine {
  rows: number;
  /** The label that the code has already. */
  known: string | null;
  /** Why it is declared missing already. */
  declared: Reason | null;
}

/** How a typed or pasted list of codes and labels is understood, line by line, beside what the variables hold. */
export function understoodOf(inspector: Inspector, text: string, names: readonly string[]): UnderstoodLine[] {
  const variables = names.flatMap((name) => inspector.named(name) ?? []);
  return readPasted(text).map((line) => {
    const levels = variables.flatMap((variable) =>
      variable.levels.levels.filter(
        (level) =>
          line.code !== undefined && (level.code === line.code || spellingsOf(level).includes(line.code)),
      ),
    );
    return {
      ...line,
      rows: levels.reduce((sum, { count }) => sum + count, 0),
      known: levels[0]?.label ?? null,
      declared:
        levels[0]?.standing === 'missing' || levels[0]?.standing === 'not-asked'
          ? (levels[0].reason ?? 'other')
          : null,
    };
  });
}

/** What a variable would be, of another kind. */
export interface KindEffect {
  name: string;
  kind: Kind;
  storage: Storage;
  /** Cells that hold something. */
  cells: number;
  unreadable: number;
  /** Forms that cannot be read, with their rows. */
  forms: { text: string; count: number }[];
  valid: number;
  distinct: number;
  statistics: Statistics;
}

/** What variables would be if they were of a kind: what stands in the way, and what would be shown. */
export function effectsOf(inspector: Inspector, names: readonly string[], kind: Kind): KindEffect[] {
  return names.flatMap((name): KindEffect[] => {
    const made = inspector.asKind(name, kind);
    if (!made) return [];
    const { counts, storage, unreadable, statistics } = documented(made);
    return [
      {
        name,
        kind: made.kind,
        storage,
        cells: counts.all - counts.blank,
        unreadable: counts.unreadable,
        forms: unreadable,
        valid: counts.valid,
        distinct: counts.distinct,
        statistics,
      },
    ];
  });
}

/** Variables like one, and in what. */
export interface Like {
  by: 'codes' | 'stem' | 'group';
  says: string;
  names: string[];
}

/** Variables like one: of the same list of codes, of the same stem, of the same group in the codebook. */
export function likeOf(inspector: Inspector, name: string): Like[] {
  const { extract, variables } = inspector;
  const one = inspector.named(name);
  if (!one) return [];
  const codes = codeListOf(one);
  const group = extract.codebooks
    .flatMap(({ groups }) => groups)
    .find((found) => found.variables.includes(one.entry?.name ?? name));
  const all: Like[] = [
    {
      by: 'codes',
      says: 'the same list of codes',
      names:
        codes === null
          ? []
          : variables.filter((other) => codeListOf(other) === codes).map((other) => other.name),
    },
    {
      by: 'stem',
      says: `names that begin like ${name}`,
      names: familyOf(
        name,
        variables.map((other) => other.name),
      ),
    },
    {
      by: 'group',
      says: `the codebook’s group “${group?.name ?? ''}”`,
      names: group
        ? variables
            .filter((other) => group.variables.includes(other.entry?.name ?? other.name))
            .map((other) => other.name)
        : [],
    },
  ];
  return all.filter(({ names }) => names.length > 1);
}

/** A code at a glance: its share of all rows. */
export interface Peeked {
  code: string;
  label: string | null;
  share: number;
  missing: boolean;
}

const MOST_PEEKED = 8;

/** The most frequent codes of a variable, for a quick look. */
export function peekOf(inspector: Inspector, name: string): Peeked[] {
  const inspected = inspector.named(name);
  if (!inspected || inspected.kind === 'identifier') return [];
  return mostFrequent(inspected.levels.levels, MOST_PEEKED).map(({ code, label, count, standing }) => ({
    code,
    label,
    share: count / inspected.counts.all,
    missing: standing !== 'valid',
  }));
}

/** A code with the rows of the variables at hand that hold it. */
export interface CodeHeld {
  code: string;
  label: string | null;
  count: number;
  standing: Standing;
}

const MOST_IN_ORDER = 60;
const MOST_CODES = 2000;

/** Codes that variables hold, in their own order where they are few, which is easier to find one in; else the most frequent first. */
export function codesOf(inspector: Inspector, names: readonly string[]): CodeHeld[] {
  const held = new Map<string, CodeHeld>();
  for (const name of names)
    for (const { code, label, count, standing } of inspector.named(name)?.levels.levels ?? []) {
      const known = held.get(code);
      held.set(code, {
        code,
        label: known?.label ?? label,
        count: (known?.count ?? 0) + count,
        standing: known?.standing ?? standing,
      });
    }
  const all = [...held.values()];
  return all.length <= MOST_IN_ORDER ? all : all.sort((a, b) => b.count - a.count).slice(0, MOST_CODES);
}

/** For each text the variables that hold it in a cell by itself. */
export function holdingOf({ extract }: Inspector, texts: readonly string[]): Map<string, string[]> {
  return new Map(
    texts.map((text) => [
      text,
      extract.variables
        .filter(({ column }) => column.distinct?.some((one) => one.trim() === text))
        .map(({ name }) => name),
    ]),
  );
}

/** What conditions on a variable are made of: as all rows there have it, whatever a sieve keeps. */
export interface Sievable {
  name: string;
  label: string | null;
  storage: Storage;
  kind: Kind;
  counts: Counts;
  codes: CodeHeld[];
  picture: Picture;
  /** The lowest and the highest value, as bounds are written; `null` without an order. */
  span: { from: number | string; to: number | string } | null;
}

export function sievableOf(inspector: Inspector, name: string): Sievable | null {
  const inspected = inspector.wholly(name);
  if (!inspected) return null;
  const { label, kind, counts, written, levels } = inspected;
  const all = levels.levels.map(({ code, label: own, count, standing }): CodeHeld => ({
    code,
    label: own,
    count,
    standing,
  }));
  const valid = validOf(levels);
  const { min, max } = documented(inspected).statistics;
  return {
    name,
    label,
    storage: written.storage,
    kind,
    counts,
    codes:
      all.length <= MOST_IN_ORDER ? all : [...all].sort((a, b) => b.count - a.count).slice(0, MOST_CODES),
    picture: pictureOf(inspected, valid.levels),
    span:
      min !== null && max !== null
        ? { from: min, to: max }
        : isNumericStorage(written.storage) && valid.values.length
          ? { from: valid.values[0], to: valid.values[valid.values.length - 1] }
          : null,
  };
}
