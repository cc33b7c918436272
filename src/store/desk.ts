import type { Entry } from '../core/log/entries';
import { foldLog } from '../core/log/fold';
import type { Laid, Opened } from '../engine/protocol';
import { refusalText, type Refused } from '../storage/refusal';
import type { View } from '../storage/view';
import { Logbook, type Shelf } from './logbook';
import { NARROW_NOTHING } from './narrow';
import { outside } from './outside';
import { NOTHING, STATIONS, useSession, type Keeping } from './session';

/**
 * The open extract's log, and who knows how much of it. This is the one owner: entries join here in order, go to storage
 * and to the engine side by side, and what either of them has is told from here.
 */
export interface Desk {
  id: string;
  serial: number;
  book: Logbook;
  /** Entries from the first on that the engine has laid. */
  laid: number;
  /** Whether columns and record are kept; else why not. */
  columns: 'kept' | 'keeping' | Refused;
  laying: Promise<void> | null;
}

const { getState: get, setState: set } = useSession;
let desk: Desk | null = null;

/** The shelf of an extract that the browser keeps. */
export const shelfOf = (id: string): Shelf => ({
  append: (entries, next) => outside().storage.appendEntries(id, entries, next),
});

/**
 * Puts an extract on the desk. Its log comes from the engine, which has laid it.
 * @param kept where its log is kept, and the first free place there; no shelf where there is no place for it yet
 * @param more entries behind those that the engine has laid
 */
export function putOnDesk(
  id: string,
  opened: Opened,
  view: View | null,
  kept: { shelf: Shelf | null; next: number },
  more: readonly Entry[] = [],
): void {
  const log = [...opened.log, ...more];
  const made: Desk = {
    id,
    serial: opened.serial,
    laid: opened.log.length,
    columns: kept.shelf ? 'kept' : 'keeping',
    laying: null,
    book: new Logbook(
      log,
      kept.next,
      kept.shelf,
      (from) => changed(made, from),
      (entries, next) => outside().windows.say({ kind: 'entries', id, entries, next }),
    ),
  };
  desk = made;
  const known = new Set(opened.summaries.map(({ name }) => name));
  set({
    ...NOTHING,
    id,
    opened,
    log,
    summaries: opened.summaries,
    flags: opened.flags,
    aside: new Set(opened.aside),
    state: foldLog(log),
    station: STATIONS.find((station) => station === view?.station) ?? 'inventory',
    current: view?.current && known.has(view.current) ? view.current : (opened.summaries[0]?.name ?? null),
    chosen: new Set(view?.chosen.filter((name) => known.has(name))),
    search: view?.search ?? '',
    sort: view?.sort ?? NOTHING.sort,
    seen: new Set(view?.seen.filter((name) => known.has(name))),
    narrow: { ...NARROW_NOTHING, ...view?.narrow },
    keeping: keepingOf(made),
  });
  void layAll(made);
}

/** Takes the open extract off the desk. */
export function clearDesk(): void {
  desk = null;
  set({ ...NOTHING, station: 'intake', keeping: { state: 'kept' } });
}

/** The desk of an extract, while it is the open one. */
export const deskOf = (id: string | null): Desk | null => (desk && desk.id === id ? desk : null);

/** How far columns are kept. */
export function columnsAre(of: Desk, columns: Desk['columns']): void {
  of.columns = columns;
  if (of === desk) set({ keeping: keepingOf(of) });
}

/** An entry joins the log: written and laid at once, in this order for everybody. Resolves when it is laid. */
export function enter(entry: Entry): Promise<void> {
  if (!desk) return Promise.resolve();
  desk.book.add(entry);
  return layAll(desk);
}

/** @param from the first entry that is another than before */
function changed(of: Desk, from: number): void {
  if (of !== desk) return;
  const log = of.book.entries;
  of.laid = Math.min(of.laid, from);
  set({
    keeping: keepingOf(of),
    ...(from < log.length ? { log, state: foldLog(log) } : {}),
  });
  void layAll(of);
}

export function keepingOf({ columns, book }: Desk): Keeping {
  const refused = typeof columns === 'object' ? columns : book.refused;
  if (refused)
    return {
      state: 'memory',
      says: refusalText(refused),
      again: refused.why !== 'blocked' && refused.why !== 'replaced',
    };
  return { state: columns === 'kept' && book.unkept.length === 0 ? 'kept' : 'keeping' };
}

/** Has the engine lay what it has not laid yet, all that came meanwhile at once. */
function layAll(of: Desk): Promise<void> {
  return (of.laying ??= lay(of).finally(() => {
    of.laying = null;
    if (of === desk)
      set({ laying: false, ...(of.laid === of.book.entries.length ? { answered: new Set() } : {}) });
  }));
}

async function lay(of: Desk): Promise<void> {
  for (let log = of.book.entries; of === desk && of.laid < log.length; log = of.book.entries) {
    set({ laying: true });
    const base = of.laid;
    of.laid = log.length;
    const answer = await outside().engine.ask('lay', of.serial, base, log.slice(base));
    // Another extract lies here by now, or the engine was started anew with all of the log.
    if (of !== desk) return;
    if (!answer.ok) {
      of.laid = Math.min(of.laid, base);
      set({ problem: answer.problem });
      return;
    }
    if (answer.value) showLaid(answer.value);
    else {
      of.laid = 0;
      if (base === 0) return;
    }
  }
}

function showLaid({ summaries, flags, aside, notices }: Laid): void {
  const touched = new Map(summaries.map((summary) => [summary.name, summary]));
  set((now) => ({
    summaries: now.summaries.map((summary) => touched.get(summary.name) ?? summary),
    flags,
    aside: new Set(aside),
    laid: now.laid + 1,
    opened: now.opened && { ...now.opened, notices },
  }));
}

/** The engine was started anew with the extract and its log as far as given. */
export function deskReopened(of: Desk, opened: Opened): void {
  if (of !== desk) return;
  of.serial = opened.serial;
  of.laid = Math.min(opened.log.length, of.book.entries.length);
  set((now) => ({
    opened,
    summaries: opened.summaries,
    flags: opened.flags,
    aside: new Set(opened.aside),
    laid: now.laid + 1,
  }));
  void layAll(of);
}

/** Entries of the open extract that the person made here and storage does not have. */
export const unkeptHere = (): readonly Entry[] => (get().id === desk?.id ? (desk?.book.unkept ?? []) : []);
