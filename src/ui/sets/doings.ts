import { decide } from '../../store/decisions';
import { useSession } from '../../store/session';
import { putInto, sendAway, takeProposals, toggleInView, viewSets } from '../../store/sets';
import type { ProposedSet } from '../../core/sets/propose';
import { openProposals } from '../../core/sets/open';
import { proposalKey, type Block } from './blocks';

/** What is done about sets on the map, be they made or proposed. */

const idsOf = (list: readonly Block[]): string[] => list.flatMap(({ id }) => (id === null ? [] : [id]));
function proposalsOf(list: readonly Block[]): ProposedSet[] {
  const { opened, state } = useSession.getState();
  const keys = new Set(list.map(({ key }) => key));
  return openProposals(opened?.proposals ?? [], state).filter((one) => keys.has(proposalKey(one)));
}

/** Opens a set beside the map, or closes it. */
export const openBlock = (key: string | null): void =>
  useSession.setState({ onMap: { block: key, variables: [] } });

/** Makes sets of those that are only proposed. @returns their ids */
export async function take(list: readonly Block[]): Promise<string[]> {
  const ids = await takeProposals(proposalsOf(list));
  if (ids.length === 1 && list.some(({ key }) => key === useSession.getState().onMap.block))
    openBlock(ids[0]);
  return ids;
}

/** Puts sets in view; one alone beside those that are, or out of view again. What is only proposed becomes a set by it. */
export async function view(list: readonly Block[]): Promise<void> {
  if (list.some(({ sort }) => sort === 'rest')) return;
  const ids = [...idsOf(list), ...(await take(list))];
  if (list.length === 1 && ids.length === 1) toggleInView(ids[0]);
  else viewSets(ids);
}

/** Several sets become one. @returns its id, or `null` where that cannot be */
export async function merge(list: readonly Block[], wished?: Block): Promise<string | null> {
  const target = wished ?? list.find(({ id }) => id !== null) ?? list[0];
  if (list.length < 2 || !target || list.some(({ sort }) => sort === 'rest')) return null;
  const others = list.filter((one) => one !== target);
  const proposed = proposalsOf(others).flatMap(({ variables }) => variables);
  const [into] = target.id === null ? await take([target]) : [target.id];
  if (!into) return null;
  if (proposed.length) await putInto(into, proposed);
  if (idsOf(others).length) await decide({ type: 'merge-sets', sets: idsOf(others), into });
  return into;
}

/** Nests sets in the first of them; one alone stands by itself again. @returns whether anything was to be done */
export function nest(list: readonly Block[]): boolean {
  const [within, ...parts] = idsOf(list);
  if (!within) return false;
  if (parts.length === 0) {
    if (!useSession.getState().state.sets.get(within)?.within) return false;
    void decide({ type: 'nest-set', set: within, within: null });
  }
  for (const set of parts) void decide({ type: 'nest-set', set, within });
  return true;
}

export function remove(list: readonly Block[]): boolean {
  const ids = idsOf(list);
  for (const id of ids) void decide({ type: 'drop-set', set: id });
  return ids.length > 0;
}

export function dismiss(list: readonly Block[]): boolean {
  const away = proposalsOf(list);
  void sendAway(away);
  return away.length > 0;
}

/** Some variables of a set become one of their own, beside it. */
export async function splitOff(
  block: Block | null,
  name: string,
  variables: readonly string[],
): Promise<void> {
  const own = variables.filter((one) => block?.own.includes(one));
  if (!block?.id || own.length === 0) return;
  await decide({
    type: 'split-set',
    from: block.id,
    set: crypto.randomUUID(),
    name,
    variables: own,
    within: useSession.getState().state.sets.get(block.id)?.within ?? null,
  });
}
