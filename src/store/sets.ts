import type { ProposedSet } from '../core/sets/propose';
import { inView } from '../core/sets/view';
import { decide } from './decisions';
import { outside } from './outside';
import { useSession } from './session';

const { getState: get, setState: set } = useSession;

/** Variables join a set that there is. */
export const putInto = (
  id: string,
  variables: readonly string[],
  before: string | null = null,
): Promise<void> => decide({ type: 'add-to-set', set: id, variables: [...variables], before });

/** Variables become a set. @returns its id */
export async function makeSet(
  name: string,
  variables: readonly string[],
  within: string | null = null,
): Promise<string> {
  const id = outside().newId();
  await decide({ type: 'make-set', set: id, name, variables: [...variables], within });
  return id;
}

/**
 * Takes proposals as they are, at once. One that is nested in another that is taken too, or was, is nested in that.
 * @returns the ids of the sets, in their order
 */
export async function takeProposals(proposals: readonly ProposedSet[]): Promise<string[]> {
  if (proposals.length === 0) return [];
  const ids = new Map([...get().state.sets.values()].map((one) => [one.proposed ?? one.name, one.id]));
  const made = proposals.map((one) => ({ one, id: outside().newId() }));
  for (const { one, id } of made) ids.set(one.name, id);
  await decide({
    type: 'make-sets',
    sets: made.map(({ one: { name, variables, within }, id }) => ({
      set: id,
      name,
      variables,
      within: within === null ? null : (ids.get(within) ?? null),
      proposed: name,
    })),
  });
  return made.map(({ id }) => id);
}

/** Sends proposals away for good. */
export async function sendAway(proposals: readonly ProposedSet[]): Promise<void> {
  for (const { name, variables } of proposals) await decide({ type: 'send-away', name, variables });
}

/** Puts these sets in view, and nothing else; all variables where there are none. */
export function viewSets(ids: readonly string[]): void {
  const { shown } = get().state;
  if (ids.length === shown.size && ids.every((id) => shown.has(id))) return;
  set({ beyond: false });
  void decide({ type: 'view-sets', sets: [...ids] });
}

/** Puts a set in view beside those that are, or takes it out of view. */
export function toggleInView(id: string): void {
  const { shown } = get().state;
  viewSets(shown.has(id) ? [...shown].filter((other) => other !== id) : [...shown, id]);
}

/** Goes to a variable in the inventory; where it is out of view, the list shows what is. */
export function lookAt(name: string): void {
  const { summaries, state } = get();
  const inside = inView(summaries, state).some((one) => one.name === name);
  set({ asking: null, station: 'inventory', current: name, search: '', beyond: !inside });
}

export const viewAll = (): void => viewSets([]);
