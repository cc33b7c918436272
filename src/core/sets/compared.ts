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

/** Names of so many variables begin alike for a reason. */
const SOME_NAMES = 3;
/** Lists of so few codes say nothing. */
const YES_NO = 2;

const TOPIC_PLACE = new Map(Object.keys(TOPICS).map((topic, i) => [topic, i]));

/** What of variables is compared, before it is known which cues speak of each and how much the order of the file tells. */
export function comparedOf(traits: readonly Trait[]): Common {
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
  const counts = new Map<string, number>();
  for (const trait of traits)
    for (const word of trait.words.keys()) counts.set(word, (counts.get(word) ?? 0) + 1);
  return { variables: traits.length, words: counts, order: 0, compared, says };
}

function unitVector({ topics, norm }: Trait): Pick<Compared, 'topics' | 'shares'> {
  const about = [...topics]
    .map(([topic, weight]) => [TOPIC_PLACE.get(topic) ?? 0, weight / norm] as const)
    .sort(([a], [b]) => a - b);
  return { topics: about.map(([topic]) => topic), shares: about.map(([, share]) => share) };
}
