import type { Beside } from '../core/inspect/beside';
import type { Problem } from '../core/extract/problem';
import type { Entry } from '../core/log/entries';
import type { Answer, Opened, Progress } from '../engine/protocol';
import { inTime } from '../storage/refusal';
import { clearDesk, columnsAre, deskKnown, deskOf, putOnDesk, shelfOf, UNOPENED, unkeptHere } from './desk';
import { foundUnder } from './finding';
import { refreshKept } from './keeping';
import { outside } from './outside';
import { useSession } from './session';
import { openStandingRules } from './standing';

const { getState: get, setState: set } = useSession;

const PATIENCE = 15_000;
/** Milliseconds between two looks whether other work has ended. */
const AGAIN = 300;

/** Progress of long work, as long as there is any. */
export const tell = (now: Progress): void => {
  if (get().reading) set({ reading: now });
};

/** Several things that went wrong, said as one. */
export const problemOf = (file: string, says: readonly string[]): Problem | null =>
  says.length ? { file, says: says.join('; ') } : null;

let turns = 0;

/** Long work, of which the latest counts. @returns what came of it; `null` where it was stopped, refused, or overtaken */
export async function working<T>(now: Progress, work: () => Promise<Answer<T>>): Promise<T | null> {
  const mine = ++turns;
  set({ reading: now, problem: null });
  const answer = await work();
  if (mine !== turns) return null;
  set({ reading: null });
  if (answer.ok) return answer.value;
  set({ problem: answer.problem });
  return null;
}

/** At the start: the list of kept extracts, and the one that was open last, as it was left. */
export async function begin(): Promise<void> {
  const { storage } = outside();
  const said: string[] = [];
  try {
    await inTime(storage.sweep(outside().now().getTime()), PATIENCE);
  } catch {
    // What was left half done stays where it is until the next start.
  }
  void storage.persist().catch(() => undefined);
  await refreshKept();
  said.push(...(await openStandingRules()));
  const last = await inTime(storage.lastOpen(), PATIENCE).catch(() => ({ id: null, damaged: false }));
  if (last.damaged) said.push('which extract was open last cannot be read; open it from the list');
  for (const { says } of get().unusable) said.push(`${says}; it can be removed at the intake`);
  if (last.id !== null && get().kept.some(({ id }) => id === last.id))
    said.push(...(await openKeptOne(last.id)));
  const problem = problemOf('what this browser keeps', said);
  if (problem) set({ problem });
}

/** Opens a kept extract. */
export async function openAgain(id: string): Promise<void> {
  const said = await openKeptOne(id);
  const problem = problemOf(get().opened?.name ?? 'the kept extract', said);
  if (problem) set({ problem });
}

/** @returns what there is to say of it, beyond a problem that kept it from being opened */
async function openKeptOne(id: string): Promise<string[]> {
  const { storage, engine } = outside();
  const said: string[] = [];
  let next = 0;
  let opened: Opened | null;
  let log: readonly Entry[] = [];
  try {
    opened = await working({ says: 'Opening', done: 0, whole: 1, rows: 0 }, async () => {
      const kept = await storage.openLog(id);
      next = kept.next;
      log = kept.entries;
      if (kept.apart.length)
        said.push(
          `${kept.apart.length} of its ${kept.apart.length + kept.entries.length} decisions cannot be read: they stay in storage, and are not in force`,
        );
      const found = await storage.openFound(id, foundUnder(kept.entries)).catch(() => null);
      // Only this very program wrote it, from what its engine opened.
      if (found) return { ok: true, value: { ...(found as Opened), serial: UNOPENED } };
      return engine.ask('open', id, kept.entries, tell);
    });
  } catch (cause) {
    set({ reading: null, station: 'intake' });
    return [`its dig log cannot be opened (${(cause as Error).message}); nothing was changed, try again`];
  }
  if (!opened) {
    set({ station: get().opened ? get().station : 'intake' });
    return [];
  }
  const { view, damaged } = await storage.openView(id).catch(() => ({ view: null, damaged: true }));
  if (damaged) said.push('how its screen was left cannot be read: it opens at its first variable');
  putOnDesk(id, opened, view, { shelf: shelfOf(id), next });
  if (opened.serial === UNOPENED) void openBehind(id, log);
  // What another window kept between the reading of the log and now was told to nobody here.
  void deskOf(id)?.book.catchUp();
  await storage.setLastOpen(id).catch(() => undefined);
  return said;
}

/**
 * What is on the screen was found before: the engine gets to know the extract behind it. What is asked meanwhile waits for it;
 * what is decided is kept at once, and laid then.
 */
async function openBehind(id: string, log: readonly Entry[]): Promise<void> {
  const { engine } = outside();
  for (let desk = deskOf(id); desk?.serial === UNOPENED; desk = deskOf(id)) {
    const answer = await engine.ask('open', id, [...log], (behind) => {
      if (deskOf(id) === desk) set({ behind });
    });
    if (deskOf(id) !== desk) return;
    set({ behind: null });
    if (answer.ok) return deskKnown(desk, answer.value);
    // An engine that died is started again, and opens it then.
    if (answer.problem?.file === 'the engine') return;
    if (answer.problem) {
      clearDesk();
      return set({ problem: answer.problem });
    }
    // Other work stopped it: it begins anew when that has ended.
    while (get().reading) await new Promise((resolve) => setTimeout(resolve, AGAIN));
  }
}

/** The open extract beside a kept one. @returns `null` where it was stopped, or cannot be, which is said */
export async function askKept(id: string, name: string): Promise<Beside | null> {
  const { storage, engine } = outside();
  try {
    return await working({ says: `Opening ${name}`, done: 0, whole: 1, rows: 0 }, async () => {
      const { entries } = await storage.openLog(id);
      return engine.ask('beside', id, entries, tell);
    });
  } catch (cause) {
    const says = `its dig log cannot be read (${(cause as Error).message}); try again`;
    set({ reading: null, problem: { file: name, says } });
    return null;
  }
}

/** Gives a kept extract another name; its data and rulings stay. */
export async function rename(id: string, name: string): Promise<void> {
  const { storage, engine, windows } = outside();
  try {
    await storage.renameKept(id, name);
  } catch (cause) {
    set({ problem: { file: name, says: `could not be renamed (${(cause as Error).message}); try again` } });
    return;
  }
  windows.say({ kind: 'renamed', id, name });
  await renamedHere(id, name);
  await engine.ask('callIt', name);
}

export async function renamedHere(id: string, name: string): Promise<void> {
  const { opened } = get();
  if (get().id === id && opened) set({ opened: { ...opened, name } });
  await refreshKept();
}

/** Removes a kept extract with its rulings, and closes it if it is open. */
export async function remove(id: string): Promise<void> {
  const { storage, windows } = outside();
  try {
    await storage.removeKept(id);
  } catch (cause) {
    set({
      problem: {
        file: 'the kept extract',
        says: `could not be removed (${(cause as Error).message}); try again`,
      },
    });
    return;
  }
  windows.say({ kind: 'removed', id });
  if (get().id === id) clearDesk();
  await refreshKept();
}

/** Another window removed the extract that is open here: what is here goes on in memory, and can be kept anew. */
export function removedElsewhere(id: string): void {
  const desk = deskOf(id);
  if (!desk) return;
  desk.book.lose();
  columnsAre(desk, { why: 'removed' });
}

/** Another window put an extract in the place of the one that is open here: it is opened, with what was decided here last. */
export async function replacedElsewhere(id: string, by: string): Promise<void> {
  if (!deskOf(id)) return;
  const mine = [...unkeptHere()];
  await openAgain(by);
  const desk = deskOf(by);
  if (desk) for (const entry of mine) desk.book.add(entry);
}
