import { tableAsked } from './cross';
import { outside } from './outside';
import { useSession, type Session } from './session';

/** A moment after the screen stops changing, in milliseconds. */
const MOMENT = 250;

let waiting: ReturnType<typeof setTimeout> | null = null;

const PARTS = [
  'current',
  'chosen',
  'search',
  'sort',
  'station',
  'seen',
  'narrow',
  'draft',
  'crossing',
] as const;

/**
 * Keeps how the screen was left. A position that cannot be kept keeps nothing else from being kept, and nobody misses it
 * before the next visit: it is tried again with the next change.
 */
export function keepPosition(): void {
  useSession.subscribe((now: Session, before: Session) => {
    if (!now.id || PARTS.every((part) => now[part] === before[part])) return;
    if (waiting) clearTimeout(waiting);
    waiting = setTimeout(() => {
      const { id, current, chosen, search, sort, station, seen, narrow, draft, crossing } =
        useSession.getState();
      if (!id) return;
      const view = {
        current,
        chosen: [...chosen],
        search,
        sort,
        station,
        seen: [...seen],
        narrow: { ...narrow },
        draft: draft && { ...draft, parts: [...draft.parts] },
        crossing: tableAsked(crossing),
      };
      void outside()
        .storage.keepView(id, view)
        .catch(() => undefined);
    }, MOMENT);
  });
}
