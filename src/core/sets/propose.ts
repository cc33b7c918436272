import type { Codebook } from '../extract/extract';
import type { Subject } from '../flags/rule';
import { probability, round2 } from '../flags/rule';
import { batteriesOf, type Battery } from './batteries';
import { clustersOf } from './clusters';
import { affinity, commonOf } from './affinity';
import type { Common } from './compared';
import { apartBy, batteryName, themeName, type Named } from './naming';
import { reasonsOf } from './reasons';
import { traitsOf, type Around, type Trait } from './traits';
import { putUnder } from '../extract/put-under';

/** A thematic set that might be made, with the reason. */
export interface ProposedSet {
  name: string;
  /** Names of its variables, in file order. */
  variables: string[];
  because: string;
  /** The larger set that it is part of. */
  within: string | null;
  /** Probability, 0 to 1, that a person would make this set. */
  confidence: number;
  from: 'codebook' | 'found';
}

/** All that variables tell of where they belong, worked out once. */
export interface Belonging {
  traits: readonly Trait[];
  common: Common;
}

export function belongingOf(subjects: readonly Subject[], around: Around): Belonging {
  const traits = traitsOf(subjects, around);
  return { traits, common: commonOf(traits) };
}

/** Two make a set only where they are surely of one. */
const LEAST_MEMBERS = 3;
const SURE_PAIR = 1.5;
/** Follow-ups of a gate from which on the gate and they are a set within their theme. */
const LEAST_FOLLOWING = 2;
/** A group of the codebook that holds nearly all variables says nothing. */
const MOST_SHARE = 0.8;
/** So sure, by what made a battery one. */
const BY = { both: 0.95, words: 0.9, names: 0.75 };

/** Proposals: the codebook's own groups, then themes that were found and what is nested in either: batteries, gates with what follows. */
export function proposeSets(
  subjects: readonly Subject[],
  codebooks: readonly Codebook[],
  { traits, common }: Belonging,
): ProposedSet[] {
  const all = traits.map((trait, i): Named => ({ trait, subject: subjects[i] }));
  const archive = archiveGroups(subjects, codebooks);
  const grouped = new Set(
    archive
      .filter(({ variables }) => variables.length <= subjects.length * MOST_SHARE)
      .flatMap(({ variables }) => variables),
  );
  const batteries = batteriesOf(traits, common.order);
  const titles = new Titles(archive.map(({ name }) => name));
  const proposals: ProposedSet[] = [...archive];
  const parents: { name: string; members: ReadonlySet<number> }[] = archive.map(({ name, variables }) => {
    const wanted = new Set(variables);
    return { name, members: new Set(traits.filter((one) => wanted.has(one.name)).map(({ at }) => at)) };
  });
  const clusters = clustersOf(traits, batteries, common).sort((a, b) => a.members[0] - b.members[0]);
  for (const { members, score } of clusters) {
    const own = members.filter((at) => !grouped.has(traits[at].name));
    if (own.length < members.length && own.length < LEAST_MEMBERS) continue;
    if (own.length < 2 || (own.length < LEAST_MEMBERS && score < SURE_PAIR)) continue;
    // What is but one battery is told as that.
    if (batteries.some((battery) => !battery.loose && same(battery.members, own))) continue;
    const named = own.map((at) => all[at]);
    const name = titles.unique(themeName(named, common), named, common);
    parents.push({ name, members: new Set(own) });
    proposals.push({
      name,
      variables: namesOf(named),
      because: told(named, common),
      within: null,
      confidence: themeConfidence(named, common),
      from: 'found',
    });
  }
  for (const battery of batteries.filter(({ loose }) => !loose)) {
    const named = battery.members.map((at) => all[at]);
    // What the codebook groups just so is not proposed twice.
    if (
      parents.some(
        ({ members }) => members.size === named.length && named.every(({ trait }) => members.has(trait.at)),
      )
    )
      continue;
    proposals.push(batterySet(battery, named, parents, titles, common));
  }
  const inBattery = new Set(batteries.flatMap(({ members }) => members));
  // Where a gate is one of many of a kind, they and what follows are told by their batteries.
  for (const gate of gateSets(traits).filter(([by]) => !inBattery.has(by))) {
    const named = gate.map((at) => all[at]);
    const parent = parentOf(gate, parents);
    if (
      !parent ||
      parent.members.size < gate.length + 2 ||
      proposals.some(({ variables }) => alike(variables, named))
    )
      continue;
    proposals.push({
      name: titles.unique(gateName(named), named, common),
      variables: namesOf([...named].sort((a, b) => a.trait.at - b.trait.at)),
      because: `${named[0].trait.name} decides who was asked the other ${named.length - 1}`,
      within: parent.name,
      confidence: 0.85,
      from: 'found',
    });
  }
  // In the order of the file, what holds others before them.
  const placeOf = new Map(traits.map(({ name, at }) => [name, at]));
  const first = ({ variables }: ProposedSet): number => placeOf.get(variables[0]) ?? 0;
  const found = proposals.slice(archive.length);
  found.sort((a, b) => first(a) - first(b) || b.variables.length - a.variables.length);
  return [...archive, ...found];
}

function batterySet(
  battery: Battery,
  named: readonly Named[],
  parents: readonly { name: string; members: ReadonlySet<number> }[],
  titles: Titles,
  common: Common,
): ProposedSet {
  const { deviant } = battery;
  const differ =
    deviant.length === 0
      ? ''
      : `; ${named
          .filter(({ trait }) => deviant.includes(trait.at))
          .map(({ trait }) => trait.name)
          .join(', ')} with other codes`;
  return {
    name: titles.unique(batteryName(named, common), named, common),
    variables: namesOf(named),
    because: `items of one question: ${told(named, common)}${differ}`,
    within: parentOf(battery.members, parents)?.name ?? null,
    confidence: round2(BY[battery.by] * (deviant.length ? 0.95 : 1)),
    from: 'found',
  };
}

const namesOf = (members: readonly Named[]): string[] => members.map(({ trait }) => trait.name);
const same = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((at, i) => at === b[i]);
const alike = (variables: readonly string[], members: readonly Named[]): boolean =>
  variables.length === members.length && members.every(({ trait }) => variables.includes(trait.name));

/** The smallest larger set that holds them all. */
const parentOf = <T extends { members: ReadonlySet<number> }>(
  members: readonly number[],
  parents: readonly T[],
): T | undefined =>
  parents
    .filter((parent) => parent.members.size > members.length && members.every((at) => parent.members.has(at)))
    .sort((a, b) => a.members.size - b.members.size)[0];

function archiveGroups(subjects: readonly Subject[], codebooks: readonly Codebook[]): ProposedSet[] {
  const here = new Set(subjects.map(({ name }) => name));
  return codebooks.flatMap((codebook) =>
    codebook.groups.flatMap(({ name, variables, within = null }) => {
      const arrived = variables.filter((variable) => here.has(variable));
      return arrived.length === 0
        ? []
        : [
            {
              name,
              variables: arrived,
              because: `a group of the codebook ${codebook.name}`,
              within,
              confidence: 1,
              from: 'codebook' as const,
            },
          ];
    }),
  );
}

/** Each gate, and behind it those it gates, where there are enough. */
function gateSets(traits: readonly Trait[]): number[][] {
  const placeOf = new Map(traits.map(({ name, at }) => [name, at]));
  const following = new Map<number, number[]>();
  for (const { at, gate } of traits) {
    const by = gate === null ? undefined : placeOf.get(gate);
    if (by !== undefined) putUnder(following, by, at);
  }
  return [...following]
    .filter(([, gated]) => gated.length >= LEAST_FOLLOWING)
    .map(([by, gated]) => [by, ...gated.sort((a, b) => a - b)]);
}
const gateName = ([gate]: readonly Named[]): string =>
  `${gate.subject.label ?? gate.trait.name}, and what follows`;

const told = (members: readonly Named[], common: Common): string => {
  const traits = members.map(({ trait }) => trait);
  const reasons = reasonsOf(traits, traits, common);
  return reasons.length ? reasons.join('; ') : 'all its evidence together';
};

const MOST_LOOKED_AT = 40;
/** How sure it is that members are of one theme: by how likely their pairs are, on average. */
function themeConfidence(members: readonly Named[], common: Common): number {
  const step = Math.max(1, Math.floor(members.length / MOST_LOOKED_AT));
  const some = members.filter((_, i) => i % step === 0);
  let [sum, pairs] = [0, 0];
  some.forEach((a, i) => {
    for (const b of some.slice(i + 1)) {
      sum += affinity(a.trait, b.trait, common);
      pairs++;
    }
  });
  // Pairs that are as likely as not, on average, make a theme that is right more often than not.
  return round2(Math.min(0.97, Math.max(0.4, probability(0.7 * (sum / Math.max(1, pairs)) + 0.9))));
}

/** Names of sets, each given once. */
class Titles {
  private readonly given: Set<string>;
  constructor(given: readonly string[]) {
    this.given = new Set(given.map((name) => name.toLowerCase()));
  }
  unique(name: string, members: readonly Named[], common: Common): string {
    const found = this.free(name) ? name : this.apart(name, members, common);
    this.given.add(found.toLowerCase());
    return found;
  }
  private apart(name: string, members: readonly Named[], common: Common): string {
    const words = new Set(name.toLowerCase().split(/\W+/));
    const by = apartBy(members, common, words);
    const longer = by === null ? null : `${name}: ${by.toLowerCase()}`;
    if (longer !== null && this.free(longer)) return longer;
    const ends = `${name}: ${members[0].trait.name} to ${members[members.length - 1].trait.name}`;
    return this.free(ends) ? ends : `${ends} (${members.length})`;
  }
  private readonly free = (name: string): boolean => !this.given.has(name.toLowerCase());
}
