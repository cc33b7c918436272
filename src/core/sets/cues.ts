import type { Common, Compared } from './compared';
import { PURPOSES } from './traits';

/** One reason for which two variables may belong together: how far it holds, 0 to 1, and what it weighs in log odds. */
export type Cue = {
  id: string;
  /** Log odds at full strength that two variables are of one set. */
  weight: number;
  strength(a: Compared, b: Compared, common: Common): number;
  /** Said of a set in most of whose pairs it holds. */
  says: string | null;
} & (NearBy | Sharing);

/** It holds of variables that stand less than so far apart in the file, and of no others. */
interface NearBy {
  reach: number;
}
/** It holds of variables of which each has something, as far as they share any of it. */
interface Sharing {
  /** What a variable has, by number. What all variables have tells nothing of two, and is left out. */
  shares(one: Compared, says: Common['says']): readonly number[];
  /** Its strength where both have something and share nothing; else that is 0. */
  apart?: number;
  /** It holds nowhere else. */
  isOnlyApart?: true;
}

/** How quickly nearness in the file fades, in variables. */
const NEAR = 3;
const FAR = 15;
/** The rarest thing that two share tells most; each other adds to it. */
const BY_RAREST = 0.75;
const BY_OTHERS = 0.5;

/** @param a ascending @param b ascending */
function shared(a: readonly number[], b: readonly number[], says: Float64Array): number {
  let best = 0;
  let sum = 0;
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i] === b[j]) {
      const told = says[a[i]];
      sum += told;
      if (told > best) best = told;
      i++;
      j++;
    } else if (a[i] < b[j]) i++;
    else j++;
  }
  return sum === 0 ? 0 : Math.min(1, best * BY_RAREST + (sum - best) * BY_OTHERS);
}

/** What the rarest thing tells that two share. @param a ascending @param b ascending */
function rarest(a: readonly number[], b: readonly number[], says: Float64Array): number {
  let best = 0;
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i] === b[j] && says[a[i]] > best) best = says[a[i]];
    if (a[i] <= b[j]) i++;
    else j++;
  }
  return best;
}

const tells = (a: number, says: Float64Array): boolean => a >= 0 && says[a] > 0;
const equal = (a: number, b: number, says: Float64Array): number => (a >= 0 && a === b ? says[a] : 0);
const is = (holds: boolean): number => (holds ? 1 : 0);
/** Nearness by distance in the file, as far as it is worth anything. */
const fadingOver = (over: number): Float64Array =>
  Float64Array.from({ length: over * 12 }, (_, distance) => Math.exp(-(distance - 1) / over));
const NEARNESS = fadingOver(NEAR);
const REGION = fadingOver(FAR);
function fading(a: Compared, b: Compared, by: Float64Array): number {
  const distance = Math.abs(a.at - b.at);
  return distance < by.length ? by[distance] : 0;
}

/** The cosine of what two are about. */
function topicsShared(a: Compared, b: Compared): number {
  let dot = 0;
  for (let i = 0, j = 0; i < a.topics.length && j < b.topics.length;) {
    if (a.topics[i] === b.topics[j]) dot += a.shares[i++] * b.shares[j++];
    else if (a.topics[i] < b.topics[j]) i++;
    else j++;
  }
  return dot;
}
/** Below it two are about different matters. */
const LEAST_SHARED = 0.05;

/**
 * What speaks for and against two being of one set. The weights are those of a logistic regression on pairs of variables
 * of made-up studies that were sorted by hand, with and without labels, in order and shuffled.
 */
export const CUES: readonly Cue[] = [
  {
    id: 'near',
    weight: 3,
    says: 'neighbours in the file',
    reach: NEARNESS.length,
    strength: (a, b, { order }) => order * fading(a, b, NEARNESS),
  },
  {
    id: 'region',
    weight: 2.5,
    says: null,
    reach: REGION.length,
    strength: (a, b, { order }) => order * fading(a, b, REGION),
  },
  {
    id: 'prefix',
    weight: 5.5,
    says: 'names that begin alike',
    shares: ({ first }, { tokens }) => [first].filter((one) => tells(one, tokens)),
    strength: (a, b, { says }) => equal(a.first, b.first, says.tokens),
  },
  {
    id: 'otherPrefix',
    weight: -1,
    says: null,
    shares: ({ first, firstOfSome }) => (firstOfSome ? [first] : []),
    apart: 1,
    isOnlyApart: true,
    strength: (a, b) => is(a.firstOfSome && b.firstOfSome && a.first !== b.first),
  },
  {
    id: 'name',
    weight: 1.2,
    says: 'names that share a part',
    shares: ({ others }, { tokens }) => others.filter((one) => tells(one, tokens)),
    strength: (a, b, { says }) => shared(a.others, b.others, says.tokens),
  },
  {
    id: 'pattern',
    weight: 3.8,
    says: 'names of one pattern',
    shares: (one, { patterns }) => one.patterns.filter((pattern) => tells(pattern, patterns)),
    strength: (a, b, { says }) => rarest(a.patterns, b.patterns, says.patterns),
  },
  {
    id: 'words',
    weight: 1.8,
    says: 'words that their labels share and others do not',
    shares: (one, { words }) => one.words.filter((word) => tells(word, words)),
    strength: (a, b, { says }) => shared(a.words, b.words, says.words),
  },
  {
    id: 'question',
    weight: 2.5,
    says: 'one question text',
    shares: ({ lead, question }) => [lead, question].filter((text) => text >= 0),
    strength: (a, b) =>
      is((a.lead >= 0 && a.lead === b.lead) || (a.question >= 0 && a.question === b.question)),
  },
  {
    id: 'codes',
    weight: 0.7,
    says: 'one list of codes',
    shares: (one, { codes }) => [one.codes].filter((list) => tells(list, codes)),
    strength: (a, b, { says }) => equal(a.codes, b.codes, says.codes),
  },
  {
    id: 'form',
    weight: 0.6,
    says: null,
    shares: ({ form }) => [form],
    strength: (a, b) => is(a.form === b.form),
  },
  {
    id: 'topic',
    weight: 2.9,
    says: 'words about one matter',
    shares: ({ topics }) => topics,
    strength: topicsShared,
  },
  {
    id: 'otherTopic',
    weight: -0.9,
    says: null,
    shares: ({ topics }) => topics,
    apart: 1,
    strength: (a, b) => is(a.topics.length > 0 && b.topics.length > 0 && topicsShared(a, b) < LEAST_SHARED),
  },
  {
    id: 'universe',
    weight: 1,
    says: 'asked of the same people',
    shares: ({ universe }, { universes }) => [universe].filter((one) => tells(one, universes)),
    strength: (a, b, { says }) => equal(a.universe, b.universe, says.universes),
  },
  {
    id: 'gate',
    weight: 2.8,
    says: 'a question with those that follow from it',
    shares: ({ name, gate }) => (gate < 0 ? [name] : [name, gate]),
    strength: (a, b) => is(a.gate === b.name || b.gate === a.name || (a.gate >= 0 && a.gate === b.gate)),
  },
  {
    id: 'blanks',
    weight: 1,
    says: 'blank in the same rows',
    shares: (one, { blanks }) => [one.blanks].filter((rows) => tells(rows, blanks)),
    strength: (a, b, { says }) => equal(a.blanks, b.blanks, says.blanks),
  },
  {
    id: 'purpose',
    weight: 5,
    says: 'of one purpose',
    shares: ({ purpose }) => (purpose === null ? [] : [PURPOSES.indexOf(purpose)]),
    strength: (a, b) => is(a.purpose !== null && a.purpose === b.purpose),
  },
  {
    id: 'otherPurpose',
    weight: -1.2,
    says: null,
    shares: ({ purpose }) => [PURPOSES.indexOf(purpose)],
    apart: 1,
    isOnlyApart: true,
    strength: (a, b) => is(a.purpose !== b.purpose),
  },
];
