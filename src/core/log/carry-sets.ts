import * as z from 'zod';
import type { Problem } from '../extract/problem';
import { foldLog } from './fold';
import { anyLogSchema } from './migrate';
import type { ThematicSet } from '../sets/view';

/** Sets as they are carried from one extract to another: by the names of their variables. */
export const setsSchema = z.object({
  format: z.literal('dig-first-sets'),
  version: z.literal(1),
  extract: z.string(),
  sets: z.array(
    z.object({
      name: z.string().min(1),
      variables: z.array(z.string()),
      within: z.string().nullable().describe('name of the set that it is part of'),
    }),
  ),
});

/** A set that is to be made. */
export interface Carried {
  set: string;
  name: string;
  variables: string[];
  within: string | null;
}

/** Sets as a file. */
export function setsFile(extract: string, sets: ReadonlyMap<string, ThematicSet>): string {
  const document: z.infer<typeof setsSchema> = {
    format: 'dig-first-sets',
    version: 1,
    extract,
    sets: [...sets.values()].map(({ name, variables, within }) => ({
      name,
      variables,
      within: (within !== null && sets.get(within)?.name) || null,
    })),
  };
  return `${JSON.stringify(document, null, 1)}\n`;
}

/**
 * Sets of a file, or those of a dig log, as far as they fit an extract. One whose name is given already is left out.
 * @param names of the variables that there are @param newId makes ids
 */
export function takeOver(
  file: string,
  text: string,
  names: readonly string[],
  there: ReadonlyMap<string, ThematicSet>,
  newId: () => string,
): { sets: Carried[]; misfits: string[]; problem: Problem | null } {
  const none = (says: string): ReturnType<typeof takeOver> => ({
    sets: [],
    misfits: [],
    problem: { file, says },
  });
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch (cause) {
    return none(
      `this is no valid JSON (${(cause as Error).message}); choose a file of sets that was saved here, or a dig log`,
    );
  }
  const listed = setsOf(found);
  if (!listed)
    return none(
      'this holds no sets that are known here; choose a file of sets that was saved here, or a dig log',
    );
  const here = new Set(names);
  const given = new Set([...there.values()].map(({ name }) => name));
  const misfits: string[] = [];
  const ids = new Map(listed.map(({ name }) => [name, newId()]));
  const sets = listed.flatMap(({ name, variables, within }): Carried[] => {
    const fitting = variables.filter((one) => here.has(one));
    const gone = variables.filter((one) => !here.has(one));
    if (given.has(name)) {
      misfits.push(`“${name}” left out, a set of this name is there`);
      return [];
    }
    if (gone.length)
      misfits.push(
        `${gone.slice(0, 5).join(', ')}${gone.length > 5 ? ` and ${gone.length - 5} more` : ''} of “${name}” not in this extract`,
      );
    return fitting.length === 0
      ? []
      : [
          {
            set: ids.get(name) ?? newId(),
            name,
            variables: fitting,
            within: (within !== null && ids.get(within)) || null,
          },
        ];
  });
  const kept = new Set(sets.map(({ set }) => set));
  return {
    sets: sets.map((set) => ({
      ...set,
      within: set.within !== null && kept.has(set.within) ? set.within : null,
    })),
    misfits,
    problem: null,
  };
}

function setsOf(found: unknown): { name: string; variables: string[]; within: string | null }[] | null {
  const own = setsSchema.safeParse(found);
  if (own.success) return own.data.sets;
  const log = anyLogSchema.safeParse(found);
  if (!log.success) return null;
  const { sets } = foldLog(log.data.entries);
  return [...sets.values()].map(({ name, variables, within }) => ({
    name,
    variables,
    within: (within !== null && sets.get(within)?.name) || null,
  }));
}
