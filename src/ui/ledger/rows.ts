import type { Flag } from '../../core/flags/rule';
import { portability as refusalOf } from '../../core/flags/variable/unportable-name';
import type { Summary } from '../../core/inspect/summary';
import { inView, membersOf } from '../../core/sets/view';
import type { State } from '../../core/log/fold';
import { NARROW_NOTHING, type Narrow } from '../../store/narrow';
import { putUnder } from '../../core/extract/put-under';

export const SORTS = [
  'position',
  'name',
  'label',
  'kind',
  'distinct',
  'valid',
  'flags',
  'standing',
  'sets',
] as const;
export type SortBy = (typeof SORTS)[number];
export interface Sort {
  by: string;
  down: boolean;
}

/** How far a person is with a variable. */
export type Progress = 'unseen' | 'seen' | 'signed off';
export const PROGRESS: readonly Progress[] = ['unseen', 'seen', 'signed off'];
export const progressOf = (name: string, state: State, seen: ReadonlySet<string>): Progress =>
  state.signedOff.has(name) ? 'signed off' : seen.has(name) ? 'seen' : 'unseen';

export const COMPLETE: Record<string, { says: string; fits: (share: number) => boolean }> = {
  whole: { says: 'every row valid', fits: (share) => share === 1 },
  nearly: { says: 'at least 95 of 100 valid', fits: (share) => share >= 0.95 },
  half: { says: 'fewer than half valid', fits: (share) => share < 0.5 },
  none: { says: 'nothing valid', fits: (share) => share === 0 },
};

/** Names of the sets that each variable stands in, in the order in which they were made. */
export function setsOf({ sets }: State): Map<string, string[]> {
  const of = new Map<string, string[]>();
  for (const { name, variables } of sets.values())
    for (const variable of variables) putUnder(of, variable, name);
  return of;
}

/** Number of open flags by variable; remarks are no open work. */
export function flagsByVariable(flags: readonly Flag[]): Map<string, number> {
  const numbers = new Map<string, number>();
  for (const { variables, severity } of flags)
    if (severity !== 'note') for (const name of variables) numbers.set(name, (numbers.get(name) ?? 0) + 1);
  return numbers;
}

export interface Wanted {
  search: string;
  sort: Sort;
  narrow?: Narrow;
  /** Also variables that are out of view. */
  beyond?: boolean;
  seen?: ReadonlySet<string>;
  flags: readonly Flag[];
  numbers: ReadonlyMap<string, number>;
  /** What the files are called among the waves, in their order. */
  waves?: readonly string[];
}

/** What the files of an extract are called among its waves. */
export const wavesOf = (opened: { files: readonly { name: string; wave?: string }[] } | null): string[] =>
  opened?.files.map(({ name, wave }) => wave ?? name) ?? [];

function fitsWave({ inFiles }: Summary, wanted: string, waves: readonly string[]): boolean {
  if (inFiles === null) return true;
  if (wanted === 'every' || wanted === 'some')
    return (inFiles.length === waves.length) === (wanted === 'every');
  const held = inFiles.some((file) => waves[file] === wanted.slice(wanted.indexOf(':') + 1));
  return held === wanted.startsWith('in:');
}

/**
 * Variables in view that are asked for. Every word searched for must stand in name, label, question, labels of codes or
 * the person's note; while something is searched for, those whose names or labels hold it come first.
 */
export function ledgerRows(
  summaries: readonly Summary[],
  state: State,
  {
    search,
    sort,
    narrow = NARROW_NOTHING,
    beyond = false,
    seen = new Set(),
    flags,
    numbers,
    waves = [],
  }: Wanted,
): Summary[] {
  const members = narrow.set ? new Set(membersOf(state.sets, narrow.set)) : null;
  const flagged =
    narrow.flags === '' || narrow.flags === 'any' || narrow.flags === 'none'
      ? null
      : new Set(flags.filter(({ rule }) => rule === narrow.flags).flatMap(({ variables }) => variables));
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const ranks = new Map<string, number>();
  const found = (beyond ? summaries : inView(summaries, state)).filter((summary) => {
    const { name, kind, role, counts } = summary;
    if (members && !members.has(name)) return false;
    if (narrow.kind && (narrow.kind === 'presumed' ? summary.confirmed : narrow.kind !== kind)) return false;
    if (narrow.role && narrow.role !== role) return false;
    if (narrow.progress && narrow.progress !== progressOf(name, state, seen)) return false;
    if (narrow.complete && !COMPLETE[narrow.complete]?.fits(counts.valid / Math.max(1, counts.all)))
      return false;
    if (narrow.flags && (flagged ? !flagged.has(name) : (narrow.flags === 'any') !== numbers.has(name)))
      return false;
    if (narrow.wave && !fitsWave(summary, narrow.wave, waves)) return false;
    if (words.length === 0) return true;
    const rank = rankOf(summary, words, state);
    if (rank === null) return false;
    ranks.set(name, rank);
    return true;
  });
  const key = keyOf(sort.by, numbers, state, seen);
  const compare = (a: Summary, b: Summary): number => {
    const [x, y] = [key(a), key(b)];
    const order =
      typeof x === 'string' && typeof y === 'string'
        ? x.localeCompare(y, 'en', { numeric: true, sensitivity: 'base' })
        : Number(x) - Number(y);
    return (sort.down ? -order : order) || a.position - b.position;
  };
  // File order gives way to what fits best; an order that was asked for does not.
  const ranked = words.length > 0 && sort.by === 'position' && !sort.down;
  return found.sort(
    ranked
      ? (a, b) => (ranks.get(a.name) ?? 0) - (ranks.get(b.name) ?? 0) || a.position - b.position
      : compare,
  );
}

interface Folded {
  bare: string;
  said: string;
}
const folds = new WeakMap<Summary, Folded>();
/** Name and label in small letters, worked out once. */
function foldedOf(summary: Summary): Folded {
  const known = folds.get(summary);
  if (known) return known;
  const made = { bare: summary.name.toLowerCase().trim(), said: (summary.label ?? '').toLowerCase() };
  folds.set(summary, made);
  return made;
}

/** How well a variable fits what is searched for, 0 the best; `null` where a word is nowhere. */
function rankOf(summary: Summary, words: readonly string[], state: State): number | null {
  const { name, words: more } = summary;
  const { bare, said } = foldedOf(summary);
  const called = state.called.get(name)?.name?.toLowerCase();
  const own = called === undefined ? bare : `${called} ${bare}`;
  const note = state.notes.get(name);
  const rest = note === undefined ? more : `${more} ${note.toLowerCase()}`;
  let rank = 0;
  for (const word of words) {
    if (own === word || bare === word) continue;
    if (own.startsWith(word) || bare.startsWith(word)) rank += 1;
    else if (own.includes(word)) rank += 2;
    else if (said.includes(word))
      rank += new RegExp(`(^|[^\\p{L}\\p{N}])${word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}`, 'u').test(said)
        ? 3
        : 4;
    else if (rest.includes(word)) rank += 8;
    else return null;
  }
  return rank;
}

function keyOf(
  by: string,
  flags: ReadonlyMap<string, number>,
  state: State,
  seen: ReadonlySet<string>,
): (summary: Summary) => string | number {
  switch (by) {
    case 'name':
      return ({ name }) => state.called.get(name)?.name ?? name;
    case 'label':
      return ({ label }) => label ?? '\uffff';
    case 'kind':
      return ({ kind }) => kind;
    case 'distinct':
      return ({ counts }) => counts.distinct;
    case 'valid':
      return ({ counts }) => counts.valid / Math.max(1, counts.all);
    case 'flags':
      return ({ name }) => flags.get(name) ?? 0;
    case 'sets': {
      const first = new Map([...setsOf(state)].map(([name, sets]) => [name, sets[0]]));
      // What stands in no set comes last.
      return ({ name }) => first.get(name) ?? '\uffff';
    }
    case 'standing':
      return ({ name }) => PROGRESS.indexOf(progressOf(name, state, seen));
    default:
      return ({ position }) => position;
  }
}

/** Why other software would refuse a new name or change it; `null` where none would. @param others all other names */
export function portability(name: string, others: readonly string[]): string | null {
  const folded = new Map<string, number>();
  for (const other of others) folded.set(other.toLowerCase(), 1);
  return (
    refusalOf(name, new Set(others), folded) ??
    (name.length > 32 ? `it is ${name.length} characters long; some software cuts it at 32` : null)
  );
}
