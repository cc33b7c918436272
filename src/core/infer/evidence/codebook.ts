import { is, type Cue } from './cue';
import type { Seen } from './seen';

const MOST_COVERED = 0.8;
/** Only the ends of a scale have labels. */
const MOST_ENDS = 4;
const LONGEST_SCALE = 12;

const lists = ({ labelled: { answers, covered } }: Seen): boolean =>
  answers.length >= 2 && covered >= MOST_COVERED;

/** What the codebook says. */
export const CODEBOOK_CUES: readonly Cue[] = [
  {
    id: 'codes have labels',
    kinds: ['nominal', 'ordinal', 'count', 'continuous'],
    holds: (seen) => is(lists(seen)),
    says: ({ labelled: { answers, covered } }) =>
      `the codebook labels ${answers.length} codes, which cover ${Math.floor(covered * 100)} of 100 valid rows`,
  },
  {
    id: 'labels rise',
    kinds: ['nominal', 'ordinal'],
    holds: (seen) => is(lists(seen) && seen.labelled.order !== null),
    says: ({ labelled }) => `the labels rise in order (${labelled.order})`,
  },
  {
    id: 'labels in no order',
    kinds: ['nominal', 'ordinal'],
    holds: (seen) => is(lists(seen) && seen.labelled.order === null),
    says: () => 'the labels give no order',
  },
  {
    id: 'only the ends have labels',
    kinds: ['ordinal', 'nominal', 'continuous'],
    holds: (seen) => {
      const { labelled, entry, numbers, distinct } = seen;
      const scale = numbers ? numbers.distinct : distinct;
      return is(
        !lists(seen) &&
          labelled.answers.length >= 2 &&
          labelled.answers.length <= MOST_ENDS &&
          scale <= LONGEST_SCALE &&
          entry?.interval !== 'continuous',
      );
    },
    says: ({ labelled: { answers } }) =>
      `only ends of the scale are labelled (${answers[0].code} ${answers[0].label})`,
  },
  {
    id: 'called continuous',
    kinds: ['continuous', 'count'],
    holds: ({ entry, labelled }) => is(entry?.interval === 'continuous' && labelled.covered < MOST_COVERED),
    says: () => 'the codebook calls it continuous',
  },
  {
    id: 'called discrete',
    kinds: ['continuous', 'count', 'ordinal'],
    holds: ({ entry, labelled, distinct }) =>
      is(entry?.interval === 'discrete' && labelled.answers.length === 0 && distinct > LONGEST_SCALE),
    says: () => 'the codebook calls it discrete',
  },
  {
    id: 'has a unit',
    kinds: ['continuous', 'count'],
    holds: ({ entry }) => is(Boolean(entry?.units)),
    says: ({ entry }) => `measured in ${entry?.units ?? ''}`,
  },
];
