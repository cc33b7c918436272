import type { ThematicSet } from '../sets/view';
import type { Entry } from './entries';

type SetEntry = Extract<
  Entry,
  {
    type:
      | 'make-set'
      | 'make-sets'
      | 'drop-set'
      | 'rename-set'
      | 'add-to-set'
      | 'take-from-set'
      | 'nest-set'
      | 'merge-sets'
      | 'split-set'
      | 'send-away'
      | 'view-sets'
      | 'view-always';
  }
>;

/** The sets that there are, and what of them is in view. */
export interface Grouping {
  sets: Map<string, ThematicSet>;
  /** Ids of those in view, some of which may be gone. */
  shown: readonly string[];
  always: boolean;
  /** Variables of each proposal that was sent away. */
  sentAway: string[][];
}

/**
 * Lays one decision on the sets that there are. What it says of sets that are not there, because an earlier decision was
 * taken back, says nothing; a set without variables stays until it is dropped.
 */
export function layOnSets(grouping: Grouping, entry: SetEntry): void {
  const { sets, sentAway } = grouping;
  const change = (id: string, part: Partial<ThematicSet>): void => {
    const set = sets.get(id);
    if (set) sets.set(id, { ...set, ...part });
  };
  switch (entry.type) {
    case 'make-set':
      make(sets, entry);
      break;
    case 'make-sets':
      for (const set of entry.sets) make(sets, set);
      break;
    case 'drop-set':
      drop(sets, entry.set);
      break;
    case 'rename-set':
      change(entry.set, { name: entry.name });
      break;
    case 'add-to-set': {
      const own = sets.get(entry.set)?.variables ?? [];
      change(entry.set, { variables: joined(own, entry.variables, entry.before ?? null) });
      break;
    }
    case 'take-from-set':
      change(entry.set, { variables: without(sets.get(entry.set)?.variables ?? [], entry.variables) });
      break;
    case 'nest-set':
      if (entry.within === null || !isWithin(sets, entry.within, entry.set))
        change(entry.set, { within: entry.within });
      break;
    case 'merge-sets':
      for (const id of entry.sets) {
        const from = sets.get(id);
        const into = sets.get(entry.into);
        if (!from || !into || from === into) continue;
        change(entry.into, { variables: joined(into.variables, from.variables, null) });
        for (const child of sets.values()) if (child.within === id) change(child.id, { within: entry.into });
        drop(sets, id);
      }
      break;
    case 'split-set':
      if (!sets.has(entry.from)) break;
      change(entry.from, { variables: without(sets.get(entry.from)?.variables ?? [], entry.variables) });
      make(sets, entry);
      break;
    case 'send-away':
      sentAway.push(entry.variables);
      break;
    case 'view-sets':
      grouping.shown = entry.sets;
      break;
    case 'view-always':
      grouping.always = entry.on;
      break;
  }
}

function make(
  sets: Map<string, ThematicSet>,
  {
    set,
    name,
    variables,
    within = null,
    proposed = null,
  }: { set: string; name: string; variables: string[]; within?: string | null; proposed?: string | null },
): void {
  sets.set(set, { id: set, name, variables: [...new Set(variables)], within, proposed });
}

/** What was part of a set that goes is part of what that was part of. */
function drop(sets: Map<string, ThematicSet>, id: string): void {
  const within = sets.get(id)?.within ?? null;
  for (const child of [...sets.values()]) if (child.within === id) sets.set(child.id, { ...child, within });
  sets.delete(id);
}

const without = (own: readonly string[], variables: readonly string[]): string[] => {
  const gone = new Set(variables);
  return own.filter((name) => !gone.has(name));
};

/** A list that others join before one of its own, or at its end; those that were in it already move there. */
function joined(own: readonly string[], more: readonly string[], before: string | null): string[] {
  const kept = without(own, more);
  const at = before === null ? -1 : kept.indexOf(before);
  const place = at < 0 ? kept.length : at;
  return [...kept.slice(0, place), ...new Set(more), ...kept.slice(place)];
}

/** Whether a set is part of another, or is it. */
function isWithin(sets: ReadonlyMap<string, ThematicSet>, id: string, of: string): boolean {
  const passed = new Set<string>();
  for (let at: string | null = id; at !== null && !passed.has(at); at = sets.get(at)?.within ?? null) {
    if (at === of) return true;
    passed.add(at);
  }
  return false;
}
