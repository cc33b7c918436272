import { cellsRule } from '../cells-rule';
import type { Flag } from '../rule';

/** Names that other software would refuse or change. A remark: they can be called otherwise for the handoff. */
export const unportableName = cellsRule({
  rule: 'unportable-name',
  needs: 'tally',
  answers: 'whole',
  of: ({ subjects }) => subjects,
  reads: ({ name }) => ({ name }),
  find: ({ read }) => lookAt(read.map(({ name }) => name)),
});

/** Why other software would refuse a name or change it; `null` where none would. @param others all other names */
export function portability(
  name: string,
  others: ReadonlySet<string>,
  folded: ReadonlyMap<string, number>,
): string | null {
  if (name.trim() === '') return 'a name is needed';
  if (others.has(name)) return 'another variable has this name';
  if ((folded.get(name.toLowerCase()) ?? 0) > 0)
    return 'another variable has this name but for case; some software takes them for one';
  if (!/^\p{L}/u.test(name)) return 'it does not begin with a letter; some software refuses it';
  if (/\s/.test(name)) return 'it holds a blank; some software refuses it';
  if (!/^[A-Za-z][A-Za-z0-9_.]*$/.test(name))
    return 'it holds signs other than letters, digits, points and underscores; some software refuses it';
  if (/[._]$/.test(name)) return 'it ends in a point or an underscore; some software refuses it';
  return name.length > 64 ? `it is ${name.length} characters long; some software cuts it at 64` : null;
}

function lookAt(names: readonly string[]): Flag[] {
  const folded = new Map<string, number>();
  for (const name of names) folded.set(name.toLowerCase(), (folded.get(name.toLowerCase()) ?? 0) + 1);
  return names.flatMap((name): Flag[] => {
    const says = portability(
      name,
      new Set(),
      new Map([[name.toLowerCase(), (folded.get(name.toLowerCase()) ?? 1) - 1]]),
    );
    return says === null
      ? []
      : [
          {
            rule: 'unportable-name',
            variables: [name],
            codes: [],
            rows: 0,
            severity: 'note',
            certainty: 0.95,
            says: `“${name}”: ${says}`,
          },
        ];
  });
}
