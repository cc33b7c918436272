import type { Entry } from '../core/log/entries';
import { deskOf, isSettled, type Desk } from './desk';
import { outside } from './outside';
import { useSession } from './session';

/** Milliseconds without a change after which what is shown is kept. */
const QUIET = 3000;

/** What the figures on the screen rest on, beside the data: the log, and standing rules. */
export const foundUnder = (log: readonly Entry[]): string =>
  JSON.stringify([log.map(({ id }) => id), useSession.getState().standing]);

/** Keeps what was found of the open extract whenever it has not changed for a while, to be there at once when it is opened again. */
export function keepWhatIsFound(): void {
  const kept = new WeakMap<Desk, string>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const keep = async (): Promise<void> => {
    const desk = deskOf(useSession.getState().id);
    if (!desk || !isSettled(desk)) return;
    const { entries } = desk.book;
    const under = foundUnder(entries);
    if (kept.get(desk) === under) return;
    const answer = await outside().engine.ask('keepFound', desk.id, desk.serial, entries.length, under);
    if (answer.ok && answer.value) kept.set(desk, under);
  };
  useSession.subscribe((now, before) => {
    if (
      now.id === null ||
      (now.summaries === before.summaries &&
        now.flags === before.flags &&
        now.keeping === before.keeping &&
        now.log === before.log)
    )
      return;
    clearTimeout(timer);
    timer = setTimeout(() => void keep(), QUIET);
  });
}
