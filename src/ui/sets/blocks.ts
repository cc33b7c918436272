import type { Flag } from '../../core/flags/rule';
import type { Summary } from '../../core/inspect/summary';
import type { State } from '../../core/log/fold';
import { openProposals } from '../../core/sets/open';
import type { ProposedSet } from '../../core/sets/propose';
import { membersOf } from '../../core/sets/view';

/** How far one is with some variables. */
export interface Progressed {
  confirmed: number;
  flags: number;
  signedOff: number;
}

/** One set on the map: made by a person, the archive's own, proposed, or the rest. */
export interface Block extends Progressed {
  /** Tells it from all others, as long as it is there. */
  key: string;
  sort: 'made' | 'archive' | 'found' | 'rest';
  /** Of sets that were made. */
  id: string | null;
  name: string;
  /** Its own variables, in its own order. */
  own: readonly string[];
  /** With those of the sets within it. */
  variables: readonly string[];
  /** How deep it is nested, 0 for none. */
  depth: number;
  because: string;
  /** Of proposals; 1 for others. */
  confidence: number;
  inView: boolean;
  /** The set that it is part of, where that does not stand above it on the map. */
  partOf: string | null;
}

export const SECTIONS: Record<Block['sort'], string> = {
  made: 'Sets made',
  archive: 'The archive’s groups',
  found: 'Proposals',
  rest: 'In no set yet',
};

/** Proposals of at least this certainty are taken all at once. */
export const SURE = 0.85;
export const proposalKey = ({ name, variables }: ProposedSet): string =>
  `proposed ${name} ${variables[0]} ${variables.length}`;

/** All sets there are, made and proposed, and what stands in none of those made; nested ones behind what they are part of. */
export function blocksOf(
  summaries: readonly Summary[],
  state: State,
  proposals: readonly ProposedSet[],
  flags: readonly Flag[],
): Block[] {
  const known = new Map(summaries.map((summary) => [summary.name, summary]));
  const flagged = new Map<string, number>();
  for (const { severity, variables } of flags)
    if (severity !== 'note') for (const name of variables) flagged.set(name, (flagged.get(name) ?? 0) + 1);
  const progress = (variables: readonly string[]): Progressed => ({
    confirmed: variables.filter((name) => known.get(name)?.confirmed).length,
    flags: variables.reduce((sum, name) => sum + (flagged.get(name) ?? 0), 0),
    signedOff: variables.filter((name) => state.signedOff.has(name)).length,
  });
  const here = (names: readonly string[]): string[] => names.filter((name) => known.has(name));
  const made = (within: string | null, depth: number): Block[] =>
    [...state.sets.values()]
      .filter((set) => (set.within !== null && state.sets.has(set.within) ? set.within : null) === within)
      .flatMap((set) => {
        const variables = here(membersOf(state.sets, set.id));
        return [
          {
            key: set.id,
            sort: 'made' as const,
            id: set.id,
            name: set.name,
            own: here(set.variables),
            variables,
            depth,
            because:
              set.variables.length > here(set.variables).length
                ? `${set.variables.length - here(set.variables).length} of its variables are not in this extract`
                : '',
            confidence: 1,
            inView: state.shown.has(set.id),
            partOf: null,
            ...progress(variables),
          },
          ...made(set.id, depth + 1),
        ];
      });
  const open = openProposals(proposals, state);
  const listed = new Set(open.map(({ name }) => name));
  const proposed = (sort: 'archive' | 'found', within: string | null, depth: number): Block[] =>
    open
      .filter(
        (one) =>
          (one.from === 'codebook') === (sort === 'archive') &&
          (one.within !== null && listed.has(one.within) && sameSort(open, one) ? one.within : null) ===
            within,
      )
      .flatMap((one) => [
        {
          key: proposalKey(one),
          sort,
          id: null,
          name: one.name,
          own: one.variables,
          variables: one.variables,
          depth,
          because: one.because,
          confidence: one.confidence,
          inView: false,
          partOf: within === null ? one.within : null,
          ...progress(one.variables),
        },
        ...proposed(sort, one.name, depth + 1),
      ]);
  const inSets = new Set([...state.sets.values()].flatMap(({ variables }) => variables));
  const rest = summaries.filter(({ name }) => !inSets.has(name)).map(({ name }) => name);
  return [
    ...made(null, 0),
    ...proposed('archive', null, 0),
    ...proposed('found', null, 0),
    ...(rest.length
      ? [
          {
            key: 'rest',
            sort: 'rest' as const,
            id: null,
            name: inSets.size ? 'In no set yet' : 'The whole extract',
            own: rest,
            variables: rest,
            depth: 0,
            because: 'what stands in none of the sets that were made',
            confidence: 1,
            inView: false,
            partOf: null,
            ...progress(rest),
          },
        ]
      : []),
  ];
}

/** Whether a proposal is nested in one of its own sort: what is found within a group of the archive stands among what was found. */
const sameSort = (open: readonly ProposedSet[], one: ProposedSet): boolean =>
  open.find(({ name }) => name === one.within)?.from === one.from;
