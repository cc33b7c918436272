import type { Role } from '../extract/words';

/** A thematic set that a person made. Sets may overlap, and may be part of others. */
export interface ThematicSet {
  id: string;
  name: string;
  /** In the order that a person gave them. */
  variables: string[];
  /** Id of the set that it is part of. */
  within: string | null;
  /** Name of the proposal that it was; `null` for what a person made. */
  proposed: string | null;
}

/** Which sets are in view, of those there are. */
export interface ViewOf {
  sets: ReadonlyMap<string, ThematicSet>;
  shown: ReadonlySet<string>;
  always: boolean;
}

/** Variables of these roles can stay in view always. */
export const ALWAYS_ROLES: readonly Role[] = ['identifier', 'wave', 'weight', 'design'];

/** Variables of a set with those of the sets that are part of it, each once; a set that holds itself ends there. */
export function membersOf(
  sets: ReadonlyMap<string, ThematicSet>,
  id: string,
  passed: ReadonlySet<string> = new Set(),
): string[] {
  const set = sets.get(id);
  if (!set || passed.has(id)) return [];
  const above = new Set([...passed, id]);
  const parts = [...sets.values()].filter(({ within }) => within === id);
  return [...new Set([...set.variables, ...parts.flatMap((part) => membersOf(sets, part.id, above))])];
}

/**
 * Variables in view, in their own order: those of all sets in view together, and with them, if a person wishes so, those
 * that identify, place and weigh rows; all where no set is in view.
 */
export function inView<V extends { name: string; role: Role }>(
  variables: readonly V[],
  { sets, shown, always }: ViewOf,
): V[] {
  const of = [...shown].filter((id) => sets.has(id));
  if (of.length === 0) return [...variables];
  const members = new Set(of.flatMap((id) => membersOf(sets, id)));
  return variables.filter(({ name, role }) => members.has(name) || (always && ALWAYS_ROLES.includes(role)));
}
