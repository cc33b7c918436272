import { nearNames } from '../extract/near-names';
import type { ProposedSet } from './propose';
import { membersOf, type ThematicSet } from './view';

/**
 * Variables of a set by its name, whatever the case: one that a person made, the archive's, or a proposed one, in that order.
 * @returns `null` where there is none of that name, with names that are near
 */
export function setNamed(
  name: string,
  made: ReadonlyMap<string, ThematicSet>,
  proposals: readonly ProposedSet[],
): { variables: string[] | null; near: string[] } {
  const same = (one: { name: string }): boolean => one.name.toLowerCase() === name.trim().toLowerCase();
  const own = [...made.values()].find(same);
  const found = own ? membersOf(made, own.id) : proposals.find(same)?.variables;
  if (found) return { variables: [...found], near: [] };
  return {
    variables: null,
    near: nearNames(
      name,
      [...[...made.values()], ...proposals].map((one) => one.name),
    ),
  };
}
