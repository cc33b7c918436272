import type { Trait } from './traits';
import { putUnder } from '../extract/put-under';

/** Items that answer the same question, each about another thing, in file order. */
export interface Battery {
  /** Zero-based places of its variables. */
  members: number[];
  /** What made it one: the names, the words of the labels or one question text. */
  by: 'names' | 'words' | 'both';
  /** Members whose codes differ from those of most. */
  deviant: number[];
  /** Dates or amounts of one unit, named alike, each of something else: of one theme, but no items of one question. */
  loose?: boolean;
}

/** Fewer items than this make no battery. */
export const LEAST_ITEMS = 3;
/** So many other variables in a row may stand between two items. */
const MOST_BETWEEN = 3;
/** Below it the order of the file says nothing of what belongs together. */
const LEAST_ORDER = 0.3;
/** So many items of other codes may stand among the others, as a share. */
const MOST_DEVIANT = 0.25;
/** A pattern that more than this share of all names have says nothing. */
const MOST_COMMON = 0.4;
/** Without a word in common, neighbours of one list of codes need to be so many. */
const LEAST_BARE = 4;
const YES_NO = 2;

/** Batteries, none of which has a member of another. */
/** @param order how much the order of the file tells, 0 to 1 */
export function batteriesOf(traits: readonly Trait[], order = 1): Battery[] {
  const between = order < LEAST_ORDER ? Infinity : MOST_BETWEEN;
  const taken = new Set<number>();
  const found: Battery[] = [];
  for (const battery of [...byWords(traits, between), ...byNames(traits, between), ...bareRuns(traits)]
    // What more tells of comes first; of those the longer.
    .sort((a, b) => rank(b) - rank(a) || b.members.length - a.members.length)) {
    const members = battery.members.filter((at) => !taken.has(at));
    if (members.length < LEAST_ITEMS || members.length < battery.members.length * 0.6) continue;
    for (const at of members) taken.add(at);
    found.push({ ...battery, members, deviant: battery.deviant.filter((at) => members.includes(at)) });
  }
  return found.sort((a, b) => a.members[0] - b.members[0]);
}

const rank = ({ by, loose }: Battery): number => (loose ? -1 : by === 'both' ? 2 : by === 'words' ? 1 : 0);

/** Codes, or what is counted or measured where there is no list. */
const answersOf = ({ codes, form }: Trait): string => codes ?? form;

/** Items whose labels begin alike, or that share one question text. */
function byWords(traits: readonly Trait[], between: number): Battery[] {
  const groups = new Map<string, Trait[]>();
  for (const trait of traits) {
    const key = trait.lead ?? (trait.question === null ? null : `?${trait.question}`);
    if (key === null || trait.purpose !== null) continue;
    putUnder(groups, key, trait);
  }
  return [...groups.values()].flatMap((group) =>
    stretches(group, between).flatMap((members) =>
      withDeviants(members, traits).map(({ kept, deviant }) => ({
        members: kept.map(({ at }) => at),
        deviant: deviant.map(({ at }) => at),
        by: sharedPattern(without(kept, deviant), traits) ? ('both' as const) : ('words' as const),
      })),
    ),
  );
}

/** Items whose names differ in a number, a letter or a word alone, and that have the same codes. */
function byNames(traits: readonly Trait[], between: number): Battery[] {
  const groups = new Map<string, Trait[]>();
  for (const trait of traits)
    if (trait.purpose === null || trait.purpose === 'sample')
      for (const named of trait.parts.patterns) {
        // Weights that resample an extract are numbered; what else weighs rows is of no one question.
        if (trait.purpose === 'sample' && !named.includes('#')) continue;
        const pattern = trait.purpose === null ? named : `${trait.purpose} ${named}`;
        putUnder(groups, pattern, trait);
      }
  return [...groups].flatMap(([pattern, group]) => {
    if (group.length < LEAST_ITEMS) return [];
    // "v#" through a whole questionnaire says nothing; "mend_#" does, however many there are.
    const common = group.length > traits.length * MOST_COMMON && !/^\p{L}{3}|_/u.test(pattern);
    if (common && !sharesWords(group)) return [];
    // A word in the name's place may be any word: then the answers have to be alike.
    const open = pattern.includes('*');
    return stretches(group, /[#@]\D/.test(pattern) ? Infinity : between).flatMap((members) =>
      withDeviants(members, traits).flatMap(({ kept, deviant }) => {
        const codes = kept[0].codes;
        if (open && (deviant.length > 0 || kept.some((one) => answersOf(one) !== answersOf(kept[0]))))
          return [];
        if (codes === null && kept.length < LEAST_BARE && !sharesWords(kept)) return [];
        return {
          members: kept.map(({ at }) => at),
          deviant: deviant.map(({ at }) => at),
          by: sharesWords(kept) ? ('both' as const) : ('names' as const),
          loose: codes === null && (pattern.startsWith('*') || (open && kept[0].dated)),
        };
      }),
    );
  });
}

/** Neighbours with one list of codes of a scale, whatever their names: items numbered through a whole questionnaire. */
function bareRuns(traits: readonly Trait[]): Battery[] {
  const found: Battery[] = [];
  let run: Trait[] = [];
  const close = (): void => {
    if (run.length >= LEAST_BARE && (run[0].codesCount > YES_NO || run.length > LEAST_BARE))
      found.push({ members: run.map(({ at }) => at), deviant: [], by: sharesWords(run) ? 'both' : 'names' });
    run = [];
  };
  for (const trait of traits) {
    const last = run[run.length - 1];
    if (
      last &&
      (trait.codes === null ||
        trait.codes !== last.codes ||
        trait.purpose !== null ||
        !trait.parts.patterns.some((pattern) => last.parts.patterns.includes(pattern)) ||
        trait.gate !== last.gate ||
        trait.lead !== last.lead)
    )
      close();
    if (trait.codes !== null && trait.purpose === null) run.push(trait);
  }
  close();
  return found;
}

/** Stretches of the file in which members follow each other closely. */
function stretches(members: readonly Trait[], between: number): Trait[][] {
  const found: Trait[][] = [];
  for (const member of members) {
    const last = found[found.length - 1];
    if (last && member.at - last[last.length - 1].at <= between + 1) last.push(member);
    else found.push([member]);
  }
  return found.filter(({ length }) => length >= LEAST_ITEMS);
}

/**
 * One battery where most members have the same answers, the few others among them as deviants; where there are several
 * such answers, one battery of each.
 */
function withDeviants(
  members: readonly Trait[],
  traits: readonly Trait[],
): { kept: Trait[]; deviant: Trait[] }[] {
  const byAnswers = new Map<string, Trait[]>();
  for (const member of members) {
    const key = answersOf(member);
    putUnder(byAnswers, key, member);
  }
  const groups = [...byAnswers.values()].sort((a, b) => b.length - a.length);
  const [main] = groups;
  if (main.length < LEAST_ITEMS) return [];
  const [from, to] = [main[0].at, main[main.length - 1].at];
  const rest = groups.slice(1).filter((group) => group.length < LEAST_ITEMS);
  // Only what stands among the others is one of them, or closes them as the last number does.
  const deviant = rest.flat().filter(({ at }) => (at > from && at < to) || at === to + 1 || at === from - 1);
  const kept =
    deviant.length <= main.length * MOST_DEVIANT + 0.5
      ? [...main, ...deviant].sort((a, b) => a.at - b.at)
      : main;
  return [
    { kept, deviant: kept === main ? [] : deviant },
    ...groups.slice(1).flatMap((group) => (group.length >= LEAST_ITEMS ? withDeviants(group, traits) : [])),
  ];
}

const without = (members: readonly Trait[], deviant: readonly Trait[]): Trait[] =>
  members.filter((one) => !deviant.includes(one));

/** Whether most labels share a word that says something; true where there are no labels. */
function sharesWords(members: readonly Trait[]): boolean {
  if (members.every(({ words }) => words.size === 0)) return false;
  const counts = new Map<string, number>();
  for (const { words } of members)
    for (const word of words.keys()) counts.set(word, (counts.get(word) ?? 0) + 1);
  return Math.max(0, ...counts.values()) >= members.length * 0.7;
}

function sharedPattern(members: readonly Trait[], traits: readonly Trait[]): boolean {
  return members[0].parts.patterns.some((pattern) => {
    const holds = (trait: Trait): boolean => trait.parts.patterns.includes(pattern);
    return members.every(holds) && traits.filter(holds).length <= traits.length * MOST_COMMON;
  });
}
