import type { Subject } from '../flags/rule';
import type { Common } from './compared';
import { TOPICS, type TopicName } from './topics';
import type { Trait } from './traits';
import { folded, saysNothing, spoken } from './words';

/** A variable with what tells where it belongs. */
export interface Named {
  trait: Trait;
  subject: Subject;
}

/** A word that so many members share names them; a topic that so many have does; fewer name nothing. */
const NEARLY_ALL = 0.75;
const MOST = 0.45;
const SOME = 0.3;
const LONGEST = 60;
/** A name of fewer words says more with two of its items. */
const SHORT = 3;

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const cut = (text: string): string =>
  text.length <= LONGEST
    ? text
    : `${text.slice(0, text.lastIndexOf(' ', LONGEST)).replace(/[\s,;:]+$/, '')}…`;

/** What a person would call items of one question. */
export function batteryName(members: readonly Named[], common: Common): string {
  const labels = members.map(({ subject, trait }) => (trait.words.size ? (subject.label ?? '') : ''));
  const questions = new Set(members.map(({ trait }) => trait.question));
  const lead = members[0].trait.lead;
  if (
    lead !== null &&
    members.filter(({ trait }) => trait.lead === lead).length >= members.length * NEARLY_ALL
  )
    return withItems(labels[0].slice(0, lead.length), members);
  const frame = frameOf(labels.filter(Boolean));
  if (frame.begin && frame.end) return cut(`${frame.begin} … ${frame.end}`);
  if (frame.begin) return withItems(frame.begin, members, frame);
  const [question] = questions;
  const asked = members[0].subject.entry?.question;
  if (questions.size === 1 && question && asked) return cut(capital(asked.split(/[?.:…]/)[0].trim()));
  const shared = sharedWords(members, common, NEARLY_ALL);
  if (shared.length) return withItems(capital(shared.join(' ')), members);
  const topic = topicOf(members, MOST);
  const scale = scaleName(members[0].subject);
  const prefix = prefixWord(members) ?? suffixWord(members);
  if (scale)
    return topic
      ? `${scale}: ${TOPICS[topic].name.toLowerCase()}`
      : `${scale} (${prefix ?? fromTo(members)})`;
  if (topic && !prefix) return withItems(TOPICS[topic].name, members);
  if (prefix) return withItems(capital(prefix), members);
  return `Items ${fromTo(members)}`;
}

const PURPOSES = {
  sample: 'Weights and sample',
  markers: 'Markers of filled-in values',
  identifier: 'Identifiers',
} as const;
/** What sets apart from what is studied says most. */
const purposeName = (members: readonly Named[]): string | null => {
  const purpose = (Object.keys(PURPOSES) as (keyof typeof PURPOSES)[]).find(
    (one) => members.filter(({ trait }) => trait.purpose === one).length >= members.length * NEARLY_ALL,
  );
  return purpose ? PURPOSES[purpose] : null;
};

/** What a person would call variables about one matter. */
export function themeName(members: readonly Named[], common: Common): string {
  const purpose = purposeName(members);
  if (purpose) return purpose;
  const nearlyAll = sharedWords(members, common, NEARLY_ALL);
  if (nearlyAll.length) return capital(nearlyAll.join(' '));
  const topic = topicOf(members, MOST);
  if (topic) return TOPICS[topic].name;
  const shared = sharedWords(members, common, MOST);
  if (shared.length) return capital(shared.join(' and '));
  const prefix = prefixWord(members);
  if (prefix) return capital(prefix);
  const weak = topicOf(members, SOME);
  if (weak) return TOPICS[weak].name;
  const some = sharedWords(members, common, SOME);
  if (some.length) return capital(some.join(' and '));
  return members.every(({ trait }) => trait.words.size === 0)
    ? fromTo(members)
    : listed(members.map(itemWord));
}

/** What tells two sets of one name apart. */
export function apartBy(
  members: readonly Named[],
  common: Common,
  taken: ReadonlySet<string>,
): string | null {
  const prefix = prefixWord(members);
  const words = [
    ...sharedWords(members, common, SOME),
    ...(prefix ? [prefix] : []),
    ...members.map(itemWord),
  ];
  return words.find((word) => !taken.has(word.toLowerCase())) ?? null;
}

/** What labels have in common before and behind what tells them apart. */
interface Frame {
  /** Words at the beginning, without what says nothing at their end; `null` where nothing is left. */
  begin: string | null;
  /** Words at the end that say something. */
  end: string | null;
  /** Characters before and behind what tells a label apart. */
  before: number;
  behind: number;
}
const NO_FRAME: Frame = { begin: null, end: null, before: 0, behind: 0 };
/** Words that lead over to what comes next. */
const LEADS_ON =
  /^(an?|the|of|in|on|at|to|for|from|by|with|and|or|der|die|das|ein|eine|von|im|in|le|la|les|un|une|des?|du|d|l|el|los|las|una?|del|al)$/i;

function frameOf(labels: readonly string[]): Frame {
  if (labels.length < 2) return NO_FRAME;
  const words = labels.map((label) => label.trim().split(/\s+/));
  const [first] = words;
  let [begins, ends] = [0, 0];
  const shortest = Math.min(...words.map(({ length }) => length));
  while (begins < shortest - 1 && words.every((one) => one[begins] === first[begins])) begins++;
  while (
    ends < shortest - 1 - begins &&
    words.every((one) => one[one.length - 1 - ends] === first[first.length - 1 - ends])
  )
    ends++;
  const lengthOf = (list: readonly string[]): number => list.reduce((sum, word) => sum + word.length + 1, 0);
  const begun = first.slice(0, begins);
  const ended = first.slice(first.length - ends);
  const kept = [...begun];
  while (kept.length && LEADS_ON.test(kept[kept.length - 1])) kept.pop();
  const says = (list: readonly string[]): string | null => {
    const text = list.join(' ').replace(/[\s,;:.–-]+$/, '');
    return spoken(text).some((word) => !saysNothing(word)) ? text : null;
  };
  const [begin, end] = [says(kept), says(ended)];
  return { begin: begin && capital(begin), end, before: lengthOf(begun), behind: ends ? lengthOf(ended) : 0 };
}

/** Words that a share of the members' labels hold, the most telling first, at most two; as they stand in a label. */
function sharedWords(members: readonly Named[], common: Common, share: number): string[] {
  const counts = new Map<string, { word: string; having: number }>();
  for (const { trait } of members)
    for (const [key, word] of trait.words) {
      const known = counts.get(key);
      if (known) known.having++;
      else counts.set(key, { word, having: 1 });
    }
  return [...counts]
    .filter(([, { having, word }]) => having >= Math.max(2, members.length * share) && word.length > 2)
    .map(([key, { word, having }]) => ({
      word,
      worth: (having / members.length) * Math.log(1 + common.variables / (common.words.get(key) ?? 1)),
    }))
    .sort((a, b) => b.worth - a.worth)
    .slice(0, 2)
    .map(({ word }, i) => (i === 0 || /^\p{Lu}{2,}/u.test(word) ? word : word.toLowerCase()));
}

/** The topic that most members are about, the narrowest that still covers them. */
export function topicOf(members: readonly Named[], share: number): TopicName | null {
  const having = new Map<TopicName, number>();
  for (const { trait } of members) {
    const most = Math.max(0, ...trait.topics.values());
    for (const [topic, weight] of trait.topics)
      if (weight >= most * 0.5) having.set(topic, (having.get(topic) ?? 0) + weight / most);
  }
  const [best] = [...having]
    .filter(([, n]) => n >= Math.max(1.5, members.length * share))
    .sort(([a, x], [b, y]) => y * depth(b) - x * depth(a));
  return best?.[0] ?? null;
}
/** A narrow topic that covers nearly as much says more. */
const depth = (topic: TopicName): number => (TOPICS[topic].within ? 1.3 : 1);

/** The word that most names begin with, if it is one. */
function prefixWord(members: readonly Named[]): string | null {
  const counts = new Map<string, number>();
  for (const { trait } of members) {
    const [word] = trait.parts.words;
    if (trait.parts.words.length + (trait.parts.tokens.length > trait.parts.words.length ? 1 : 0) > 1)
      counts.set(word, (counts.get(word) ?? 0) + 1);
  }
  const [word, having] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [null, 0];
  return word !== null && word.length >= 4 && /[aeiouy]/.test(word) && having >= members.length * 0.6
    ? word
    : null;
}

/** The word that most names end in: "order_date", "ship_date" → date. */
function suffixWord(members: readonly Named[]): string | null {
  const [first] = members;
  const word = first.trait.parts.words[first.trait.parts.words.length - 1];
  return first.trait.parts.words.length > 1 &&
    word.length >= 4 &&
    members.every(({ trait }) => trait.parts.words[trait.parts.words.length - 1] === word)
    ? word
    : null;
}

/** "Household has (radio, television, …)": a short name says more with two of its items. */
function withItems(name: string, members: readonly Named[], { before, behind }: Frame = NO_FRAME): string {
  const words = spoken(name);
  if (words.length > SHORT + 1) return cut(name.trim());
  if (words.length >= SHORT && !saysNothing(words[words.length - 1])) return cut(name.trim());
  const known = new Set(words.map(folded));
  const items = members.slice(0, 2).map((member) => {
    const { trait, subject } = member;
    const from = before || (trait.lead?.length ?? 0);
    const label = subject.label?.trim() ?? '';
    const rest = from
      ? label
          .slice(from, label.length - behind)
          .replace(/^[\s:–—…-]+/, '')
          .trim()
      : '';
    if (rest && rest.length <= 24) return rest;
    const word = [...trait.words].find(([key]) => !known.has(key))?.[1];
    return word?.toLowerCase() ?? trait.parts.words.find((part) => !known.has(folded(part))) ?? trait.name;
  });
  if (new Set(items).size < 2) return cut(name.trim());
  return cut(`${name.trim()} (${items.join(', ')}, …)`);
}

const AGREEING = /\b(agree|disagree|zustimm|stimme|accord|acuerdo)/i;
const OFTEN = /\b(never|always|often|nie|immer|jamais|toujours|nunca|siempre)\b/i;
const SATISFIED = /\b(satisf|zufrieden|satisfait)/i;
const LIKELY = /\b(likely|wahrscheinlich|probable)/i;
/** What a list of answers asks for. */
function scaleName({ entry }: Subject): string | null {
  const words = (entry?.categories ?? []).map(({ label }) => label ?? '').join(' ');
  if (AGREEING.test(words)) return 'Agree or disagree';
  if (SATISFIED.test(words)) return 'How satisfied';
  if (LIKELY.test(words)) return 'How likely';
  if (OFTEN.test(words)) return 'How often';
  return null;
}

const fromTo = (members: readonly Named[]): string =>
  `${members[0].trait.name} to ${members[members.length - 1].trait.name}`;

/** The word that says most of one variable. */
function itemWord({ trait, subject }: Named): string {
  const [word] = [...trait.words.values()];
  return (word ?? (trait.words.size === 0 ? trait.name : (subject.label ?? trait.name))).toLowerCase();
}

const listed = (words: readonly string[]): string => capital([...new Set(words)].slice(0, 3).join(', '));
