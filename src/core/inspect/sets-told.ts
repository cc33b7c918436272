import type { State } from '../log/fold';
import { openProposals } from '../sets/open';
import type { ProposedSet } from '../sets/propose';
import { membersOf } from '../sets/view';
import type { Inspection } from './schema';

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
