import type { Opened } from '../engine/protocol';
import { deskOf, deskReopened, type Desk } from './desk';
import { tell, working } from './opening';
import { outside } from './outside';
import { useSession } from './session';

const { getState: get, setState: set } = useSession;

/** How often the engine is asked whether it is there, and how long it may be silent, in milliseconds. */
const ROUND = 10_000;
const SILENCE = 30_000;

/** Watches over the engine: one that died is started again from what is kept, one that is silent is said to be. */
export function watchEngine(): void {
  const { engine } = outside();
  engine.onLost((why) => void startAgain(why));
  let asked: number | null = null;
  setInterval(() => {
    const now = performance.now();
    if (asked !== null) {
      if (now - asked > SILENCE && !get().trouble) {
        const seconds = Math.round((now - asked) / 1000);
        set({
          trouble: {
            says: `The engine has not answered for ${seconds} seconds. It may be long at work; if not, start it again: what is decided stays.`,
            restart: true,
          },
        });
      }
      return;
    }
    asked = now;
    void engine.ask('ping').then(() => {
      asked = null;
      if (get().trouble?.restart) set({ trouble: null });
    });
  }, ROUND);
}

let starting = false;

/** Starts the engine anew, and opens in it what was open. @param why it ended */
export async function startAgain(why: string): Promise<void> {
  if (starting) return;
  starting = true;
  const { engine } = outside();
  engine.restart();
  set({
    reading: null,
    trouble: { says: `The engine ended (${why}). It is being started again…`, restart: false },
  });
  await engine.ask('follow', get().standing);
  const desk = deskOf(get().id);
  const opened = desk ? await openedAnew(desk) : null;
  const lost = desk !== null && opened === null;
  if (desk && opened) deskReopened(desk, opened);
  set({
    trouble: lost
      ? {
          says: `The engine ended (${why}) and the extract could not be opened anew. What you decided is in the dig log; save it at the handoff, and read the files again.`,
          restart: true,
        }
      : null,
    ...(lost
      ? {}
      : { problem: { file: 'the engine', says: `ended (${why}) and was started again; nothing is lost` } }),
  });
  starting = false;
}

/** The extract in a fresh engine: from storage where it is kept there, else from its files where they are at hand. */
function openedAnew(desk: Desk): Promise<Opened | null> {
  const { engine } = outside();
  const { plan } = get();
  const now = { says: 'Opening anew', done: 0, whole: 1, rows: 0 };
  if (desk.columns === 'kept')
    return working(now, () => engine.ask('open', desk.id, desk.book.entries, tell));
  if (plan) return working(now, () => engine.ask('read', plan, false, tell));
  return Promise.resolve(null);
}
