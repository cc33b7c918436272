import type { State } from '../log/fold';
import { openProposals } from '../sets/open';
import type { ProposedSet } from '../sets/propose';
import { membersOf } from '../sets/view';
import type { Inspection } from './schema';

/** An inspection with no other variables than these, and the flags that are about one of them or about all rows. */
export function onlyOf(document: Inspection, names: readonly string[]): Inspection {
  if (names.length === document.variables.length) return document;
  const wanted = new Set(names);
  return {
    ...document,
    variables: document.variables.filter(({ name }) => wanted.has(name)),
    flags: document.flags.filter(
      ({ variables }) => variables.length === 0 || variables.some((name) => wanted.has(name)),
    ),
  };
}

/** Sets as the inspection tells them: those that a person made, then proposals that were neither taken nor sent away. */
export const setsTold = (proposals: readonly ProposedSet[], state: State): Inspection['sets'] => [
  ...[...state.sets.values()].map(({ id, name, within }) => ({
    name,
    variables: membersOf(state.sets, id),
    because: 'made by a person',
    within: (within !== null && state.sets.get(within)?.name) || null,
    confidence: 1,
    from: 'person' as const,
  })),
  ...openProposals(proposals, state),
];
