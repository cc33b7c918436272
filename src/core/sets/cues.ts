import type { Trait } from './traits';

/** What a pair of variables is compared within: how common each word and each token is. */
export interface Common {
  variables: number;
  /** Variables whose label holds a word, by the word folded. */
  words: ReadonlyMap<string, number>;
  /** Variables whose name holds a token. */
  tokens: ReadonlyMap<string, number>;
  patterns: ReadonlyMap<string, number>;
  /** Variables that have a code list, a universe, a question, a pattern of blanks. */
  codes: ReadonlyMap<string, number>;
  universes: ReadonlyMap<string, number>;
  blanks: ReadonlyMap<string, number>;
  /** How much the order of the file tells, 0 to 1: little where it is alphabetical, or shuffled. */
  order: number;
}

export function commonOf(traits: readonly Trait[]): Common {
  const count = (keys: (trait: Trait) => Iterable<string | null>): Map<string, number> => {
    const counts = new Map<string, number>();
    for (const trait of traits)
      for (const key of new Set(keys(trait))) if (key !== null) counts.set(key, (counts.get(key) ?? 0) + 1);
    return counts;
  };
  const common = {
    variables: traits.length,
    words: count(({ words }) => words.keys()),
    tokens: count(({ parts }) => parts.tokens),
    patterns: count(({ parts }) => parts.patterns),
    codes: count(({ codes }) => [codes]),
    universes: count(({ universe }) => [universe]),
    blanks: count(({ blanks }) => [blanks]),
    order: 0,
  };
  return { ...common, order: orderOf(traits, common) };
}

/** By so much, in log odds, neighbours are more alike than others where the order of the file is that of its matters. */
const FULL_ORDER = 0.8;
const MOST_COMPARED = 600;

/** Whether neighbours in the file are more alike than any two, by everything but their nearness. */
function orderOf(traits: readonly Trait[], common: Common): number {
  if (traits.length < 8) return 1;
  const step = Math.max(1, Math.floor(traits.length / MOST_COMPARED));
  let [near, far, pairs] = [0, 0, 0];
  for (let at = 0; at + 1 < traits.length; at += step) {
    near += affinity(traits[at], traits[at + 1], common);
    far += affinity(traits[at], traits[(at + 1 + (traits.length >> 1)) % traits.length], common);
    pairs++;
  }
  return Math.min(1, Math.max(0, (near - far) / pairs / FULL_ORDER));
}

/** How much it says that two share what so many have: 1 for what only they share, 0 for what all do. */
const rarity = (having: number, { variables }: Common): number =>
  variables <= 2 ? 1 : Math.max(0, Math.log(variables / Math.max(2, having)) / Math.log(variables / 2));

/** One reason for which two variables may belong together: how far it holds, 0 to 1, and what it weighs in log odds. */
export interface Cue {
  id: string;
  /** Log odds at full strength that two variables are of one set. */
  weight: number;
  strength(a: Trait, b: Trait, common: Common): number;
  /** Said of a set in most of whose pairs it holds. */
  says: string | null;
}

/** How quickly nearness in the file fades, in variables. */
const NEAR = 3;
const FAR = 15;

const sharedOf = (
  a: Iterable<string>,
  has: (word: string) => boolean,
  counts: ReadonlyMap<string, number>,
  common: Common,
): number => {
  let best = 0;
  let sum = 0;
  for (const word of a)
    if (has(word)) {
      const says = rarity(counts.get(word) ?? 0, common);
      sum += says;
      if (says > best) best = says;
    }
  return Math.min(1, best * 0.75 + (sum - best) * 0.5);
};

/** Two of one topic: the cosine of what their words are about. */
export function topicsShared(a: Trait, b: Trait): number {
  if (a.norm === 0 || b.norm === 0) return 0;
  let dot = 0;
  const [few, many] = a.topics.size < b.topics.size ? [a, b] : [b, a];
  for (const [topic, weight] of few.topics) dot += weight * (many.topics.get(topic) ?? 0);
  return dot / (a.norm * b.norm);
}

const is = (holds: boolean): number => (holds ? 1 : 0);
/** Short lists that very many variables have say little. */
const YES_NO = 2;

/** Log odds that two variables of which nothing is known are of one set. */
export const BASE = -5;
/** Where the order says nothing, not to be neighbours is nothing against two either. */
const WITHOUT_ORDER = 2.3;
export const CUES: readonly Cue[] = [
  {
    id: 'near',
    weight: 3.5,
    says: 'neighbours in the file',
    strength: (a, b, { order }) => order * Math.exp(-(Math.abs(a.at - b.at) - 1) / NEAR),
  },
  {
    id: 'region',
    weight: 2.3,
    says: null,
    strength: (a, b, { order }) => order * Math.exp(-(Math.abs(a.at - b.at) - 1) / FAR),
  },
  {
    id: 'prefix',
    weight: 4,
    says: 'names that begin alike',
    strength: (a, b, common) =>
      a.parts.words.length > 0 && a.parts.words[0] === b.parts.words[0]
        ? rarity(common.tokens.get(a.parts.words[0]) ?? 0, common)
        : 0,
  },
  {
    id: 'name',
    weight: 2.5,
    says: 'names that share a part',
    strength: (a, b, common) =>
      sharedOf(a.parts.words.slice(1), (word) => b.parts.words.indexOf(word) > 0, common.tokens, common),
  },
  {
    id: 'pattern',
    weight: 3.5,
    says: 'names of one pattern',
    strength: (a, b, common) =>
      Math.max(
        0,
        ...a.parts.patterns
          .filter((pattern) => !pattern.startsWith('*') && b.parts.patterns.includes(pattern))
          .map((pattern) => rarity(common.patterns.get(pattern) ?? 0, common)),
      ),
  },
  {
    id: 'words',
    weight: 1.9,
    says: 'words that their labels share and others do not',
    strength: (a, b, common) => sharedOf(a.words.keys(), (word) => b.words.has(word), common.words, common),
  },
  {
    id: 'strange',
    weight: -0.2,
    says: null,
    strength: (a, b) =>
      is(a.words.size > 0 && b.words.size > 0 && ![...a.words.keys()].some((word) => b.words.has(word))),
  },
  {
    id: 'question',
    weight: 2.5,
    says: 'one question text',
    strength: (a, b) =>
      is((a.lead !== null && a.lead === b.lead) || (a.question !== null && a.question === b.question)),
  },
  {
    id: 'codes',
    weight: 1.3,
    says: 'one list of codes',
    strength: (a, b, common) =>
      a.codes !== null && a.codes === b.codes && a.codesCount > YES_NO
        ? rarity(common.codes.get(a.codes) ?? 0, common)
        : 0,
  },
  { id: 'form', weight: 0.8, says: null, strength: (a, b) => is(a.form === b.form) },
  { id: 'topic', weight: 2, says: 'words about one matter', strength: topicsShared },
  {
    id: 'otherTopic',
    weight: -1.2,
    says: null,
    strength: (a, b) => is(a.norm > 0 && b.norm > 0 && topicsShared(a, b) < 0.05),
  },
  {
    id: 'universe',
    weight: 1,
    says: 'asked of the same people',
    strength: (a, b, common) =>
      a.universe !== null && a.universe === b.universe
        ? rarity(common.universes.get(a.universe) ?? 0, common)
        : 0,
  },
  {
    id: 'gate',
    weight: 2,
    says: 'a question with those that follow from it',
    strength: (a, b) => is(a.gate === b.name || b.gate === a.name || (a.gate !== null && a.gate === b.gate)),
  },
  {
    id: 'blanks',
    weight: 1,
    says: 'blank in the same rows',
    strength: (a, b, common) =>
      a.blanks !== null && a.blanks === b.blanks ? rarity(common.blanks.get(a.blanks) ?? 0, common) : 0,
  },
  {
    id: 'purpose',
    weight: 4,
    says: 'of one purpose',
    strength: (a, b) => is(a.purpose !== null && a.purpose === b.purpose),
  },
  { id: 'otherPurpose', weight: -2, says: null, strength: (a, b) => is(a.purpose !== b.purpose) },
];

/** Log odds that two variables are of one set. */
export function affinity(a: Trait, b: Trait, common: Common): number {
  let sum = BASE + WITHOUT_ORDER * (1 - common.order);
  for (const { weight, strength } of CUES) sum += weight * strength(a, b, common);
  return sum;
}
