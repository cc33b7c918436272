import { between, is, type Cue } from './cue';
import type { Seen } from './seen';
import { levelAt } from '../level-list';

const perValue = ({ rows, distinct }: Seen): number => rows / distinct;
const isText = ({ texts }: Seen): boolean => texts !== null;
const FEW = 60;
/** Stretches of time that no reader of dates knows: quarters, halves, weeks, seasons of two years. */
const PERIOD =
  /^((1[89]|20)\d\d[-/ _.]?([QTKHSW]|KW|CW|wk)[-_ ]?\d{1,2}|([QTKHSW]|KW|CW|wk)[-_ ]?\d{1,2}[-/ _.]((1[89]|20)\d\d|\d\d)|(1[89]|20)\d\d[-/](\d\d|(1[89]|20)\d\d)|[1-4](st|nd|rd|th)? (quarter|half) (1[89]|20)\d\d)$/i;
const CODE = /^[A-Z0-9._/-]{1,12}$/;

const shareOf = ({ texts }: Seen, holds: (code: string) => boolean): number =>
  texts === null
    ? 0
    : texts.sample.filter((code) => holds(code.trim())).length / Math.max(1, texts.sample.length);

/** What words and other texts tell. */
export const TEXT_CUES: readonly Cue[] = [
  { id: 'text', kinds: ['identifier', 'nominal', 'ordinal', 'date'], holds: (seen) => is(isText(seen)) },
  {
    id: 'words in order',
    kinds: ['ordinal', 'nominal'],
    holds: ({ texts }) => is(Boolean(texts?.order)),
    says: ({ texts }) => `the words have an order (${texts?.order ?? ''})`,
  },
  {
    id: 'letters counted off',
    kinds: ['ordinal', 'nominal'],
    holds: ({ texts }) => is(Boolean(texts?.grades)),
    says: ({ texts }) => texts?.grades ?? '',
  },
  {
    id: 'letters counted off, named as grades',
    kinds: ['ordinal', 'nominal'],
    holds: ({ texts, byName }) => is(Boolean(texts?.grades) && byName.some(({ kind }) => kind === 'ordinal')),
    says: ({ texts }) => texts?.grades ?? '',
  },
  {
    id: 'two words',
    kinds: ['nominal', 'text'],
    holds: (seen) => is(isText(seen) && seen.distinct <= 2 && seen.rows >= 5),
    says: ({ distinct, rows }) => `${distinct} distinct ${distinct === 1 ? 'word' : 'words'} in ${rows} rows`,
  },
  {
    id: 'few words that repeat',
    kinds: ['nominal', 'ordinal', 'text', 'identifier'],
    holds: (seen) => is(isText(seen) && seen.distinct > 2 && seen.distinct <= FEW && perValue(seen) >= 3),
    says: repeated,
  },
  {
    id: 'many words that repeat',
    kinds: ['nominal', 'text', 'identifier'],
    holds: (seen) => is(isText(seen) && seen.distinct > FEW && perValue(seen) >= 3),
    says: repeated,
  },
  {
    id: 'words that hardly repeat',
    kinds: ['nominal', 'text', 'identifier'],
    holds: (seen) => (isText(seen) ? between(3 - perValue(seen), 0, 2) : 0),
    says: ({ distinct, rows }) => `${distinct} distinct texts in ${rows} rows`,
  },
  {
    id: 'few short words',
    kinds: ['nominal', 'text'],
    holds: (seen) =>
      is(isText(seen) && seen.distinct <= 20 && (seen.texts?.length ?? 0) < 20 && perValue(seen) > 1.3),
    says: ({ distinct }) => `${distinct} distinct short words`,
  },
  {
    id: 'long texts',
    kinds: ['text', 'nominal', 'identifier'],
    holds: ({ texts }) => (texts ? between(texts.length, 15, 40) : 0),
    says: ({ texts }) => `long texts, ${Math.round(texts?.length ?? 0)} characters on average`,
  },
  {
    id: 'several words',
    kinds: ['text', 'nominal', 'identifier'],
    holds: ({ texts }) => (texts ? between(texts.words, 1, 4) : 0),
    says: ({ texts }) => `${(texts?.words ?? 0).toFixed(1)} words each, on average`,
  },
  {
    id: 'written like codes',
    kinds: ['nominal', 'text', 'ordinal'],
    holds: (seen) =>
      perValue(seen) >= 1.5 && perValue(seen) < Infinity && shareOf(seen, (code) => CODE.test(code)) > 0.9
        ? 1
        : 0,
    says: ({ texts }) => `written like codes, such as ${texts?.sample[0] ?? ''}`,
  },
  {
    id: 'quarters, halves or weeks',
    kinds: ['date', 'ordinal', 'identifier', 'nominal'],
    holds: (seen) => is(shareOf(seen, (code) => PERIOD.test(code)) >= 0.95),
    says: ({ valid }) => `stretches of time, such as ${levelAt(valid, 0).code}`,
  },
  {
    id: 'addresses of the web',
    kinds: ['text', 'identifier'],
    holds: (seen) => is(shareOf(seen, (code) => /^(https?:\/\/|www\.)/i.test(code)) > 0.9),
    says: () => 'addresses of the web',
  },
  {
    id: 'numbers with zeros in front',
    kinds: ['nominal', 'identifier', 'text', 'ordinal'],
    holds: (seen) => is(shareOf(seen, (code) => /^\d+$/.test(code)) > 0.9),
    says: ({ valid }) => `digits kept as text, such as ${levelAt(valid, 0).code}`,
  },
];

function repeated(seen: Seen): string {
  return `${seen.distinct} distinct words in ${seen.rows} rows: each stands ${Math.round(perValue(seen))} times on average`;
}
