/** The stem of a battery item's name: "mend_a" → "mend_", "q14b" → "q14", "own12" → "own"; `null` where there is none. */
export function stemOf(name: string): string | null {
  const found = /^(.{2,}?)(?:\d{1,3}|(?<=[\d_.])[a-z]{1,2})$/i.exec(name) ?? /^(.{2,}_)[^_]+$/.exec(name);
  return found ? found[1].toLowerCase() : null;
}

/** The name itself and all names with the same stem. */
export function familyOf(name: string, names: Iterable<string>): string[] {
  const stem = stemOf(name);
  return stem === null ? [name] : [...names].filter((other) => other === name || stemOf(other) === stem);
}
