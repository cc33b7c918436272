import { TOPICS } from './topics';
import type { Purpose, Trait } from './traits';

/** What of a variable is compared, with a number for each thing that several may share; −1 for nothing. */
export interface Compared {
  /** Which cues can hold of it at all: a bit for each, in their order. */
  speaks: number;
  at: number;
  name: number;
  /** The first word of its name, and the others. */
  first: number;
  /** Whether the names of several variables, though not of most, begin with it. */
  firstOfSome: boolean;
  others: readonly number[];
  patterns: readonly number[];
  words: readonly number[];
  lead: number;
  question: number;
  codes: number;
  form: number;
  universe: number;
  gate: number;
  blanks: number;
  purpose: Purpose;
  /** Topics that it is about, ascending by number, and how much it is about each: a vector of length 1. */
  topics: readonly number[];
  shares: readonly number[];
}

/** Things that several variables may share, by number: how much it says that two do, 1 for what only they have, 0 for what all have. */
class Shared {
  private readonly numbers = new Map<string, number>();
  private readonly having: number[] = [];
  says: Float64Array = new Float64Array(0);

  /** The number of a thing that one more variable has. */
  number(key: string | null): number {
    if (key === null) return -1;
    let found = this.numbers.get(key);
    if (found === undefined) this.numbers.set(key, (found = this.having.push(0) - 1));
    this.having[found]++;
    return found;
  }
  readonly all = (keys: Iterable<string>): number[] =>
    [...new Set(keys)].map((key) => this.number(key)).sort((a, b) => a - b);

  /** @param variables how many there are */
  weigh(variables: number): void {
    this.says = Float64Array.from(this.having, (having) =>
      variables <= 2 ? 1 : Math.max(0, Math.log(variables / Math.max(2, having)) / Math.log(variables / 2)),
    );
  }
}

/** What pairs of variables are compared within. */
export interface Common {
  variables: number;
  /** Variables whose label holds a word, by the word folded. */
  words: ReadonlyMap<string, number>;
  /** How much the order of the file tells, 0 to 1: little where it is alphabetical, or shuffled. */
  order: number;
  compared: readonly Compared[];
  says: Readonly<Record<'words' | 'tokens' | 'patterns' | 'codes' | 'universes' | 'blanks', Float64Array>>;
}

const TOPIC_PLACE = new Map(Object.keys(TOPICS).map((topic, i) => [topic, i]));

export function commonOf(traits: readonly Trait[]): Common {
  const [words, tokens, patterns, codes] = [new Shared(), new Shared(), new Shared(), new Shared()];
  const [universes, blanks, names, texts] = [new Shared(), new Shared(), new Shared(), new Shared()];
  const firsts = new Map<string | null, number>();
  for (const { parts } of traits) {
    const [first = null, ...others] = parts.words;
    if (first !== null && others.length > 0) firsts.set(first, (firsts.get(first) ?? 0) + 1);
  }
  const compared = traits.map((trait): Compared => {
    const { parts } = trait;
    const [first = null, ...others] = parts.words;
    return {
      speaks: 0,
      at: trait.at,
      name: names.number(trait.name),
      first: tokens.number(first),
      firstOfSome: (firsts.get(first) ?? 0) >= SOME_NAMES && others.length > 0,
      others: tokens.all(others),
      // What stands before the same ending may be anything.
      patterns: patterns.all(parts.patterns.filter((pattern) => !pattern.startsWith('*'))),
      words: words.all(trait.words.keys()),
      lead: texts.number(trait.lead),
      question: texts.number(trait.question),
      codes: codes.number(trait.codesCount > YES_NO ? trait.codes : null),
      form: texts.number(trait.form),
      universe: universes.number(trait.universe),
      gate: names.number(trait.gate),
      blanks: blanks.number(trait.blanks),
      purpose: trait.purpose,
      ...unitVector(trait),
    };
  });
  for (const shared of [words, tokens, patterns, codes, universes, blanks]) shared.weigh(traits.length);
  const says: Common['says'] = {
    words: words.says,
    tokens: tokens.says,
    patterns: patterns.says,
    codes: codes.says,
    universes: universes.says,
    blanks: blanks.says,
  };
  for (const one of compared)
    CUES.forEach(({ needs }, i) => {
      if (!needs || needs(one, says)) one.speaks |= 1 << i;
    });
  const counts = new Map<string, number>();
  for (const trait of traits)
    for (const word of trait.words.keys()) counts.set(word, (counts.get(word) ?? 0) + 1);
  const common: Common = {
    variables: traits.length,
    words: counts,
    order: 0,
    compared,
    says,
  };
  return { ...common, order: orderOf(traits, common) };
}

function unitVector({ topics, norm }: Trait): Pick<Compared, 'topics' | 'shares'> {
  const about = [...topics]
    .map(([topic, weight]) => [TOPIC_PLACE.get(topic) ?? 0, weight / norm] as const)
    .sort(([a], [b]) => a - b);
  return { topics: about.map(([topic]) => topic), shares: about.map(([, share]) => share) };
}

/** By so much, in log odds, neighbours are more alike than others where the order of the file is that of its matters. */
const FULL_ORDER = 1.2;
const MOST_COMPARED = 600;

/**
 * How far neighbours in the file are more alike than any two, by everything but their nearness: 1 where the file goes matter
 * by matter, 0 where its order is of no account.
 * @param traits in file order; of a battery any one item speaks for it
 */
export function orderOf(traits: readonly Trait[], common: Common): number {
  if (traits.length < 8) return 1;
  const step = Math.max(1, Math.floor(traits.length / MOST_COMPARED));
  // By everything else.
  const nowhere = { ...common, order: 0 };
  let [near, far, pairs] = [0, 0, 0];
  for (let at = 0; at + 1 < traits.length; at += step) {
    near += affinity(traits[at], traits[at + 1], nowhere);
    far += affinity(traits[at], traits[(at + 1 + (traits.length >> 1)) % traits.length], nowhere);
    pairs++;
  }
  return Math.min(1, Math.max(0, (near - far) / pairs / FULL_ORDER));
}

/** One reason for which two variables may belong together: how far it holds, 0 to 1, and what it weighs in log odds. */
export interface Cue {
  id: string;
  /** Log odds at full strength that two variables are of one set. */
  weight: number;
  strength(a: Compared, b: Compared, common: Common): number;
  /** What both must have for it to hold at all; by default nothing. What all variables share tells nothing of two. */
  needs?(one: Compared, says: Common['says']): boolean;
  /** Said of a set in most of whose pairs it holds. */
  says: string | null;
}

/** How quickly nearness in the file fades, in variables. */
const NEAR = 3;
const FAR = 15;
/** Names of so many variables begin alike for a reason. */
const SOME_NAMES = 3;
/** Lists of so few codes say nothing. */
const YES_NO = 2;
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

/** Log odds that two variables of which nothing is known are of one set. */
export const BASE = -5.4;
/** Where the order says nothing, not to be neighbours is nothing against two either. */
const WITHOUT_ORDER = 2.8;

/**
 * What speaks for and against two being of one set. The weights are those of a logistic regression on pairs of variables
 * of made-up studies that were sorted by hand, with and without labels, in order and shuffled.
 */
export const CUES: readonly Cue[] = [
  {
    id: 'near',
    weight: 3,
    says: 'neighbours in the file',
    strength: (a, b, { order }) => order * fading(a, b, NEARNESS),
  },
  { id: 'region', weight: 2.5, says: null, strength: (a, b, { order }) => order * fading(a, b, REGION) },
  {
    id: 'prefix',
    weight: 5.5,
    says: 'names that begin alike',
    needs: ({ first }, { tokens }) => tells(first, tokens),
    strength: (a, b, { says }) => equal(a.first, b.first, says.tokens),
  },
  {
    id: 'otherPrefix',
    weight: -1,
    says: null,
    needs: ({ firstOfSome }) => firstOfSome,
    strength: (a, b) => is(a.firstOfSome && b.firstOfSome && a.first !== b.first),
  },
  {
    id: 'name',
    weight: 1.2,
    says: 'names that share a part',
    needs: ({ others }, { tokens }) => others.some((one) => tells(one, tokens)),
    strength: (a, b, { says }) => shared(a.others, b.others, says.tokens),
  },
  {
    id: 'pattern',
    weight: 3.8,
    says: 'names of one pattern',
    needs: (one, { patterns }) => one.patterns.some((pattern) => tells(pattern, patterns)),
    strength: (a, b, { says }) => {
      let best = 0;
      for (const one of a.patterns)
        for (const other of b.patterns)
          if (one === other && says.patterns[one] > best) best = says.patterns[one];
      return best;
    },
  },
  {
    id: 'words',
    weight: 1.8,
    says: 'words that their labels share and others do not',
    needs: (one, { words }) => one.words.some((word) => tells(word, words)),
    strength: (a, b, { says }) => shared(a.words, b.words, says.words),
  },
  {
    id: 'question',
    weight: 2.5,
    says: 'one question text',
    needs: ({ lead, question }) => lead >= 0 || question >= 0,
    strength: (a, b) =>
      is((a.lead >= 0 && a.lead === b.lead) || (a.question >= 0 && a.question === b.question)),
  },
  {
    id: 'codes',
    weight: 0.7,
    says: 'one list of codes',
    needs: (one, { codes }) => tells(one.codes, codes),
    strength: (a, b, { says }) => equal(a.codes, b.codes, says.codes),
  },
  { id: 'form', weight: 0.6, says: null, strength: (a, b) => is(a.form === b.form) },
  {
    id: 'topic',
    weight: 2.9,
    says: 'words about one matter',
    needs: ({ topics }) => topics.length > 0,
    strength: topicsShared,
  },
  {
    id: 'otherTopic',
    weight: -0.9,
    says: null,
    needs: ({ topics }) => topics.length > 0,
    strength: (a, b) => is(a.topics.length > 0 && b.topics.length > 0 && topicsShared(a, b) < LEAST_SHARED),
  },
  {
    id: 'universe',
    weight: 1,
    says: 'asked of the same people',
    needs: ({ universe }, { universes }) => tells(universe, universes),
    strength: (a, b, { says }) => equal(a.universe, b.universe, says.universes),
  },
  {
    id: 'gate',
    weight: 2.8,
    says: 'a question with those that follow from it',
    strength: (a, b) => is(a.gate === b.name || b.gate === a.name || (a.gate >= 0 && a.gate === b.gate)),
  },
  {
    id: 'blanks',
    weight: 1,
    says: 'blank in the same rows',
    needs: (one, { blanks }) => tells(one.blanks, blanks),
    strength: (a, b, { says }) => equal(a.blanks, b.blanks, says.blanks),
  },
  {
    id: 'purpose',
    weight: 5,
    says: 'of one purpose',
    needs: ({ purpose }) => purpose !== null,
    strength: (a, b) => is(a.purpose !== null && a.purpose === b.purpose),
  },
  { id: 'otherPurpose', weight: -1.2, says: null, strength: (a, b) => is(a.purpose !== b.purpose) },
];

/** How far a reason holds of two variables, 0 to 1. */
export const holds = ({ strength }: Cue, a: Trait, b: Trait, common: Common): number =>
  strength(common.compared[a.at], common.compared[b.at], common);

/** The bit of a cue among those that speak. */
const bitOf = (id: string): number => 1 << CUES.findIndex((cue) => cue.id === id);
const NEARBY = bitOf('near') | bitOf('region');
const [FORM, GATE, OTHER_PURPOSE] = [bitOf('form'), bitOf('gate'), bitOf('otherPurpose')];

/** Log odds that two variables are of one set. */
export const affinity = (a: Trait, b: Trait, common: Common): number =>
  affinityOf(common.compared[a.at], common.compared[b.at], common);

/** The same by what is compared of them. */
export function affinityOf(one: Compared, other: Compared, common: Common): number {
  let sum = BASE + WITHOUT_ORDER * (1 - common.order);
  // Cues that show at once that they do not hold are not asked: of many variables most pairs share nothing.
  let left = one.speaks & other.speaks;
  if (Math.abs(one.at - other.at) >= REGION.length) left &= ~NEARBY;
  if (one.form !== other.form) left &= ~FORM;
  if (one.gate < 0 && other.gate < 0) left &= ~GATE;
  if (one.purpose === other.purpose) left &= ~OTHER_PURPOSE;
  for (; left !== 0; left &= left - 1) {
    const cue = CUES[31 - Math.clz32(left & -left)];
    sum += cue.weight * cue.strength(one, other, common);
  }
  return sum;
}
