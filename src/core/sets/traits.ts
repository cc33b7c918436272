import { isDateStorage } from '../extract/words';
import type { Subject } from '../flags/rule';
import { validOf } from '../infer/levels';
import { partsOf, type NameParts } from './names';
import { topicsOfWord, upwards, type TopicName } from './topics';
import { contentWords, plain, spoken } from './words';

/** What variables are for, where that sets them apart from what is studied. */
export const PURPOSES = [null, 'sample', 'markers', 'identifier'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** What of a variable tells with which others it belongs. */
export interface Trait {
  /** Zero-based, among all variables in file order. */
  at: number;
  name: string;
  parts: NameParts;
  /** Words of the label that say something, folded, each as it stands there. */
  words: ReadonlyMap<string, string>;
  /** Label up to a colon or a dash, where one parts it: what items of a battery have in common. */
  lead: string | null;
  question: string | null;
  topics: ReadonlyMap<TopicName, number>;
  /** Square root of the sum of squares of `topics`. */
  norm: number;
  /** The codes that it may take, with their labels where it has any; `null` where it has no short list. */
  codes: string | null;
  /** How many codes. */
  codesCount: number;
  labelled: boolean;
  /** Kind and storage. */
  form: string;
  dated: boolean;
  universe: string | null;
  /** The variable that decides who was asked. */
  gate: string | null;
  /** Tells which rows are blank; `null` where hardly any or nearly all are. */
  blanks: string | null;
  purpose: Purpose;
}

/** What is known besides the variables themselves. */
export interface Around {
  /** The variable that decides who was asked a variable. */
  gates: ReadonlyMap<string, string>;
  /** Tells which rows of a variable are blank: the same text for the same rows. */
  blanks(name: string): string | null;
}

/** Longer lists are no answer scale. */
const MOST_CODES = 30;
const LEAST_LEAD = 4;

/** A topic that fewer than one in so many have says all that it can; one that most have says little. */
const RARE = 8;
const LEAST_SAID = 0.3;

export function traitsOf(subjects: readonly Subject[], around: Around): Trait[] {
  const traits = subjects.map((subject, at) => traitOf(subject, at, around));
  const having = new Map<TopicName, number>();
  for (const { topics } of traits)
    for (const topic of topics.keys()) having.set(topic, (having.get(topic) ?? 0) + 1);
  return traits.map((trait) => {
    const topics = new Map(
      [...trait.topics].map(([topic, weight]) => {
        const rarity = Math.log(traits.length / (having.get(topic) ?? 1)) / Math.log(RARE);
        return [topic, weight * Math.min(1, Math.max(LEAST_SAID, rarity))] as const;
      }),
    );
    return { ...trait, topics, norm: Math.sqrt([...topics.values()].reduce((sum, x) => sum + x * x, 0)) };
  });
}

function traitOf(subject: Subject, at: number, { gates, blanks }: Around): Trait {
  const { name, label, entry, kind, written, role } = subject;
  const said = label !== null && plain(label) !== plain(name) ? label : '';
  const parts = partsOf(name);
  const purpose: Purpose =
    role === 'weight' || role === 'design'
      ? 'sample'
      : role === 'imputation'
        ? 'markers'
        : role === 'identifier'
          ? 'identifier'
          : null;
  const dated = isDateStorage(written.storage);
  const topics = topicsOf(said, entry?.question ?? null, parts, dated, purpose);
  const codes = codesOf(subject);
  return {
    at,
    name,
    parts,
    words: contentWords(said),
    lead: leadOf(said),
    question: entry?.question ? plain(entry.question).slice(0, 200) : null,
    topics,
    norm: 0,
    codes: codes?.join('|') ?? null,
    codesCount: codes?.length ?? 0,
    labelled: said !== '',
    form: `${kind} ${written.storage}`,
    dated,
    universe: entry?.universe ? plain(entry.universe) : null,
    gate: gates.get(name) ?? null,
    blanks: blanks(name),
    purpose,
  };
}

/** The part of a label that stands before a colon or a spaced dash, folded to compare. */
function leadOf(label: string): string | null {
  const found = /^(.*?)(?::\s|\s[–—-]\s|\.\.\.\s?|…\s?)\S/.exec(label);
  const lead = found ? plain(found[1]).trim() : '';
  return lead.length >= LEAST_LEAD ? lead : null;
}

/** What each piece of a variable's words says of its topic: less, the less it is about the variable itself. */
const BY_LABEL = 1;
const BY_LATER_WORDS = 0.7;
const BY_NAME = 0.5;
const BY_QUESTION = 0.25;
const BY_STORAGE = 0.7;
const BY_PURPOSE = 3;

function topicsOf(
  label: string,
  question: string | null,
  { words }: NameParts,
  dated: boolean,
  purpose: Purpose,
): Map<TopicName, number> {
  const topics = new Map<TopicName, number>();
  const add = (word: string, weight: number): void => {
    const matches = topicsOfWord(word);
    for (const [topic, by] of matches)
      upwards(topic).forEach((one, i) => {
        const more = (weight * by) / (1 + i) / Math.sqrt(matches.length);
        topics.set(one, (topics.get(one) ?? 0) + more);
      });
  };
  const spokenWords = spoken(label);
  spokenWords.forEach((word, i) => add(word, i < 4 ? BY_LABEL : BY_LATER_WORDS));
  for (const word of words) add(word, label === '' ? BY_LABEL : BY_NAME);
  if (question) for (const word of contentWords(question).values()) add(word, BY_QUESTION);
  if (dated) topics.set('time', (topics.get('time') ?? 0) + BY_STORAGE);
  if (purpose === 'sample') return new Map([['sample', BY_PURPOSE]]);
  if (purpose === 'markers') return new Map([['markers', BY_PURPOSE]]);
  // "Weight" alone is what bodies have, or goods: what weighs rows has said so by its purpose.
  topics.delete('sample');
  return topics;
}

function codesOf({ entry, kind, levels }: Subject): string[] | null {
  const listed = entry?.categories.filter(({ missing }) => !missing) ?? [];
  if (listed.length > 1 && listed.length <= MOST_CODES)
    return listed.map(({ code, label }) => (label === null ? code : `${code} ${plain(label)}`));
  if (kind !== 'nominal' && kind !== 'ordinal') return null;
  const { levels: valid } = validOf(levels);
  return valid.length > 1 && valid.length <= MOST_CODES ? valid.map(({ code }) => code) : null;
}
