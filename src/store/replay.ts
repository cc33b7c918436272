import type { Replay } from '../core/inspect/replay';
import type { Entry } from '../core/log/entries';
import { inForce } from '../core/log/fold';
import { anyLogSchema, fittingPlaces } from '../core/log/migrate';
import { askOrSay } from './asking';
import { enter } from './desk';
import { outside } from './outside';
import { useSession } from './session';

const { getState: get, setState: set } = useSession;

/** An earlier log that is held against the open extract; nothing of it is laid. */
export interface Earlier {
  name: string;
  entries: Entry[];
  replay: Replay;
}

/** Holds the log of a file against the open extract. */
export async function holdLog(file: File): Promise<void> {
  const refuse = (says: string, element?: string): void =>
    set({ problem: { file: file.name, ...(element ? { element } : {}), says } });
  let found: unknown;
  try {
    found = JSON.parse(await file.text());
  } catch (cause) {
    return refuse(
      `this is no valid JSON (${(cause as Error).message}); choose a dig log that a handoff saved`,
    );
  }
  const read = anyLogSchema.safeParse(found);
  if (!read.success) {
    const [{ path, message }] = read.error.issues;
    return refuse(`this is no dig log that is known here (${message})`, path.join('.') || undefined);
  }
  const { opened } = get();
  if (!opened) return;
  const { entries, misfits } = fittingPlaces(read.data, opened.name);
  const standing = inForce(entries);
  const replay = await askOrSay('replay', standing);
  if (!replay) return;
  const lost = misfits.map(({ entry, says }) => ({ entry: entry.id, says: says, why: says }));
  set({
    asking: 'replay',
    earlier: {
      name: file.name,
      entries: standing,
      replay: { ...replay, misfits: [...lost, ...replay.misfits] },
    },
  });
}

/** Lays entries of the earlier log, as decisions of now. @param ids of those that are wanted */
export async function takeEarlier(ids: ReadonlySet<string>): Promise<void> {
  const { earlier } = get();
  if (!earlier) return;
  // All join the log at once, in their order, and are laid together.
  const all = earlier.entries
    .filter(({ id }) => ids.has(id))
    .map((entry) => enter({ ...entry, id: outside().newId(), at: outside().now().toISOString() }));
  await Promise.all(all);
}
