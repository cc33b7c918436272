import type { TableWanted, Tables } from '../core/intake/sent';
import type { Problem } from '../core/extract/problem';
import type { Kept } from '../storage/records';
import { putOnDesk, deskOf, shelfOf } from './desk';
import { keepDesk } from './keeping';
import { problemOf, tell, working } from './opening';
import { outside } from './outside';
import { useSession } from './session';

const { getState: get, setState: set } = useSession;

/** Where the database is that this program was told of when it was started; `null` where it was of none. */
export async function knownDatabase(): Promise<string | null> {
  const answer = await outside().engine.ask('database');
  return answer.ok ? answer.value.at : null;
}

/** The tables of a database. @param address `null` for the one that is known */
export async function listTables(address: string | null): Promise<Tables | Problem> {
  const answer = await outside().engine.ask('tables', address);
  if (answer.ok) return answer.value;
  return answer.problem ?? { file: 'the database', says: 'it was stopped' };
}

/** Asks for a table of a database, one that is kept here or any. */
export const askTable = (of: Kept['database'] | null): void => set({ asking: 'database', tableAgain: of });

/**
 * Opens a table; what was decided of it before, and is kept here, is laid over it. Its rows stay where they are: what is kept is the log.
 * @param at host, port and database @returns whether it is open
 */
export async function openTable(session: string, at: string, wanted: TableWanted): Promise<boolean> {
  const { storage, engine } = outside();
  const before = get().kept.find(({ database }) => database && isSame(database, at, wanted));
  const said: string[] = [];
  let log: Awaited<ReturnType<typeof storage.openLog>> | null = null;
  try {
    log = before ? await storage.openLog(before.id) : null;
  } catch (cause) {
    said.push(
      `its dig log cannot be read (${(cause as Error).message}): what is decided now is kept apart from it`,
    );
  }
  const opened = await working({ says: 'Asking the database', done: 0, whole: 1, rows: 0 }, () =>
    engine.ask('readTable', session, wanted, log ? [...log.entries] : [], tell),
  );
  if (!opened) return false;
  if (before && log) {
    const { view } = await storage.openView(before.id).catch(() => ({ view: null }));
    putOnDesk(before.id, opened, view, { shelf: shelfOf(before.id), next: log.next });
    await storage.setLastOpen(before.id).catch(() => undefined);
  } else {
    const id = outside().newId();
    putOnDesk(id, opened, null, { shelf: null, next: 0 });
    const desk = deskOf(id);
    if (desk) void keepDesk(desk, null);
  }
  const problem = problemOf(opened.name, said);
  if (problem) set({ problem });
  return true;
}

const isSame = (kept: NonNullable<Kept['database']>, at: string, wanted: TableWanted): boolean =>
  kept.at === at && ('table' in wanted ? kept.table === wanted.table : kept.query === wanted.query);
