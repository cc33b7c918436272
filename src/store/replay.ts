import type { Replay } from '../core/inspect/replay';
import type { DigLog, Entry } from '../core/log/entries';
import { inForce } from '../core/log/fold';
import { digLogOf, fittingPlaces } from '../core/log/migrate';
import { InputError } from '../core/extract/problem';
import { askOrSay } from './asking';
import { enter } from './desk';
import { outside } from './outside';
import { useSession } from './session';

const { getState: get, setState: set } = useSession;

/** A dig log that was made on another extract, and what that is called. */
export interface EarlierLog {
  name: string;
  log: DigLog;
}

/** An earlier log that is held against the open extract; nothing of it is laid. */
export interface Earlier {
  name: string;
  entries: Entry[];
  replay: Replay;
}

/** The log of a file. @returns `null` where it is none, which is said */
export async function logOfFile(file: File): Promise<EarlierLog | null> {
  try {
    return { name: file.name, log: digLogOf(file.name, JSON.parse(await file.text())) };
  } catch (cause) {
    const problem =
      cause instanceof InputError
        ? cause.problem
        : {
            file: file.name,
            says: `this is no valid JSON (${(cause as Error).message}); choose a dig log that a handoff saved`,
          };
    set({ problem });
    return null;
  }
}

/** The log of an extract that this browser keeps. @returns `null` where it cannot be read, which is said */
export async function logOfKept(id: string): Promise<EarlierLog | null> {
  try {
    const log = await outside().storage.savedLog(id);
    return { name: log.extract, log };
  } catch (cause) {
    set({
      problem: {
        file: get().kept.find((one) => one.id === id)?.name ?? 'the kept extract',
        says: `its dig log cannot be read (${(cause as Error).message}); choose another`,
      },
    });
    return null;
  }
}

/** Holds an earlier log against the open extract, and shows what it comes to. */
export async function holdLog(earlier: EarlierLog | null): Promise<void> {
  const { opened } = get();
  if (!opened || !earlier) return;
  const { entries, misfits } = fittingPlaces(earlier.log, opened.name);
  const standing = inForce(entries);
  if (standing.length + misfits.length === 0)
    return set({
      problem: { file: earlier.name, says: 'its dig log holds no ruling; there is nothing to lay' },
    });
  const replay = await askOrSay('replay', standing);
  if (!replay) return;
  const lost = misfits.map(({ entry, says }) => ({ entry: entry.id, says, why: says, rows: null }));
  set({
    asking: 'replay',
    earlier: {
      name: earlier.name,
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
