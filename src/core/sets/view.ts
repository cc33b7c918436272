/** A thematic set that a person made. Sets may overlap. */
export interface ThematicSet {
  id: string;
  name: string;
  variables: string[];
}

/** Names of the variables in view: those of all sets in view together; all where none is. */
export function inView(
  names: readonly string[],
  sets: Iterable<ThematicSet>,
  shown: ReadonlySet<string>,
): string[] {
  const members = new Set<string>();
  let any = false;
  for (const set of sets) {
    if (!shown.has(set.id)) continue;
    any = true;
    for (const name of set.variables) members.add(name);
  }
  return any ? names.filter((name) => members.has(name)) : [...names];
}
