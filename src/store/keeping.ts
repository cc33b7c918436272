import { inTime, refusedBy } from '../storage/refusal';
import { columnsAre, deskOf, shelfOf, type Desk } from './desk';
import { outside } from './outside';
import { useSession } from './session';

const { getState: get, setState: set } = useSession;

/** The list of kept extracts does not take longer than this, in milliseconds. */
const PATIENCE = 15_000;

/** The list of kept extracts anew. What is wrong with storage as a whole is said where it is kept or not. */
export async function refreshKept(): Promise<void> {
  try {
    set(await inTime(outside().storage.listKept(), PATIENCE));
  } catch {
    set({ kept: [], unusable: [] });
  }
}

/**
 * Keeps the open extract: first the place for its log, so that no ruling waits for columns, then its columns, then which
 * was open last; what it takes the place of goes only when all that is done.
 */
export async function keepDesk(desk: Desk, instead: string | null): Promise<void> {
  const { storage, windows } = outside();
  columnsAre(desk, 'keeping');
  try {
    await storage.whileKeeping(desk.id, () => keepAll(desk, instead));
  } catch (cause) {
    columnsAre(desk, refusedBy(cause));
  }
  if (typeof desk.columns === 'object') {
    desk.book.lose();
    await storage.removeKept(desk.id).catch(() => undefined);
  }
  windows.say({ kind: 'listed' });
  await refreshKept();
}

async function keepAll(desk: Desk, instead: string | null): Promise<void> {
  const { storage, engine, windows } = outside();
  const { id } = desk;
  const announced = await inTime(engine.ask('announce', id, desk.serial, instead), PATIENCE);
  if (!announced.ok) throw new Error(announced.problem?.says ?? 'it was stopped');
  if (announced.value) return columnsAre(desk, announced.value);
  await desk.book.keepOn(shelfOf(id));
  const columns = await engine.ask('keep', id);
  if (!columns.ok) throw new Error(columns.problem?.says ?? 'it was stopped');
  columnsAre(desk, columns.value ?? 'kept');
  if (columns.value) return;
  if (deskOf(id) === desk) await storage.setLastOpen(id).catch(() => undefined);
  if (instead === null) return;
  try {
    await storage.takePlace(instead, id);
    windows.say({ kind: 'replaced', id: instead, by: id });
    await desk.book.catchUp();
  } catch {
    // The earlier shape stays in the list beside this one; nothing is lost by that.
  }
}

/** Tries once more to keep what could not be kept. */
export async function keepAgain(): Promise<void> {
  const desk = deskOf(get().id);
  if (!desk) return;
  if (desk.columns === 'kept' && desk.book.refused?.why !== 'removed') await desk.book.flush();
  else if (desk.columns !== 'keeping') await keepDesk(desk, null);
}
