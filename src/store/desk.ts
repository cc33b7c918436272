import type { Entry } from '../core/log/entries';
import { lookedAt } from './looking';
import { foldLog } from '../core/log/fold';
import type { Summary } from '../core/inspect/summary';
import type { Laid, Opened } from '../engine/protocol';
import { refusalText, type Refused } from '../storage/refusal';
import type { View } from '../storage/view';
import { Logbook, type Shelf } from './logbook';
import { NARROW_NOTHING } from './narrow';
import { outside } from './outside';
import { NOTHING, STATIONS, useSession, type Keeping, type Session } from './session';

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

/** Of so many variables sets are looked for at once. */
const FEW = 400;

/** Stands for the serial of an opening that the engine has not made yet. */
export const UNOPENED = 0;

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
    flags: opened.flags ?? [],
    flagsStale: opened.flags === null,
    aside: new Set(opened.aside),
    counts: opened.counts,
    account: opened.sieve,
    countedAll: opened.countedAll,
    state: foldLog(log),
    station: STATIONS.find((station) => station === view?.station) ?? 'inventory',
    current: view?.current && known.has(view.current) ? view.current : (opened.summaries[0]?.name ?? null),
    chosen: new Set(view?.chosen.filter((name) => known.has(name))),
    search: view?.search ?? '',
    sort: view?.sort ?? NOTHING.sort,
    seen: new Set(view?.seen.filter((name) => known.has(name))),
    narrow: { ...NARROW_NOTHING, ...view?.narrow },
    draft: view?.draft ?? null,
    crossing: { ...NOTHING.crossing, ...crossingOf(view?.crossing ?? null, known) },
    keeping: keepingOf(made),
  });
  void layAll(made);
  if (opened.flags === null) void recount(made, made.laid);
  // Of few variables it takes no time; of many it is done when it is wanted.
  if (opened.summaries.length <= FEW) void wantProposals();
}

/** The table that was looked at last, where all its variables are there. */
const crossingOf = (asked: View['crossing'], known: ReadonlySet<string>): View['crossing'] =>
  asked &&
  [asked.down, asked.across, asked.within, asked.measure].every((name) => name === null || known.has(name))
    ? asked
    : null;

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
  if (of.serial === UNOPENED) return Promise.resolve();
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
    if (answer.value) {
      showLaid(answer.value);
      void recount(of, log.length);
    } else {
      of.laid = 0;
      if (base === 0) return;
    }
  }
}

function showLaid({ summaries, names, flags, aside, notices, counts, sieve, countedAll, stale }: Laid): void {
  set((before) => {
    const there = names ? thereNow(before, names, summaries) : {};
    const now = { ...before, ...there };
    return {
      ...there,
      ...withSummaries(now, summaries, stale),
      ...(flags === null ? { flagsStale: true } : { flags, flagsStale: false }),
      aside: new Set(aside),
      counts,
      account: sieve,
      countedAll,
      laid: now.laid + 1,
      base: now.base + (stale.length ? 1 : 0),
      opened: now.opened && { ...now.opened, notices },
    };
  });
}

/** Trial recodes that came stand behind all others; who stood on one that went stands on what is there. */
function thereNow(
  now: Session,
  names: readonly string[],
  made: readonly Summary[],
): Pick<Session, 'summaries' | 'current' | 'chosen' | 'crossing'> {
  const known = new Map([...now.summaries, ...made].map((summary) => [summary.name, summary]));
  const summaries = names.flatMap((name) => known.get(name) ?? []);
  const isThere = (name: string | null): boolean => name === null || names.includes(name);
  const { current, chosen, crossing } = now;
  const { down, across, within, measure } = crossing;
  return {
    summaries,
    current: isThere(current) ? current : (summaries[0]?.name ?? null),
    chosen: new Set([...chosen].filter(isThere)),
    crossing: [down, across, within, measure].every(isThere)
      ? crossing
      : {
          ...crossing,
          down: isThere(down) ? down : null,
          across: isThere(across) ? across : null,
          within: isThere(within) ? within : null,
          measure: isThere(measure) ? measure : null,
          at: null,
        },
  };
}

/** Summaries as they are now; those are stale no more. */
function withSummaries(
  now: Pick<Session, 'summaries' | 'stale'>,
  summaries: readonly Summary[],
  stale: readonly string[] = [],
): Pick<Session, 'summaries' | 'stale'> {
  if (summaries.length === 0 && stale.length === 0) return now;
  const touched = new Map(summaries.map((summary) => [summary.name, summary]));
  return {
    summaries: now.summaries.map((summary) => touched.get(summary.name) ?? summary),
    stale: new Set([...now.stale, ...stale].filter((name) => !touched.has(name))),
  };
}

/** So many variables are asked for in one go. */
const AT_ONCE = 200;

/** Counts what is stale: what is on the screen first, the rest after it, then the flags. */
async function recount(of: Desk, version: number): Promise<void> {
  const { engine } = outside();
  const isNow = (): boolean => of === desk && of.laid === version && of.book.entries.length === version;
  while (isNow() && get().stale.size) {
    const { stale, current, summaries } = get();
    const first = [...(current ? [current] : []), ...lookedAt()].filter((name) => stale.has(name));
    const names = [
      ...new Set([...first, ...summaries.map(({ name }) => name).filter((name) => stale.has(name))]),
    ];
    const answer = await engine.ask('recount', of.serial, version, names.slice(0, AT_ONCE));
    if (!isNow()) return;
    if (!answer.ok) return set({ problem: answer.problem });
    if (answer.value === null || answer.value.length === 0) return;
    const made = answer.value;
    set((now) => withSummaries(now, made));
  }
  while (isNow() && get().flagsStale) {
    const answer = await engine.ask('flags', of.serial, version);
    if (!isNow()) return;
    if (!answer.ok) return set({ problem: answer.problem });
    if (answer.value === null) return;
    const { flags } = answer.value;
    if (flags) set((now) => ({ flags, flagsStale: false, laid: now.laid + 1 }));
  }
}

/** The engine has the extract of which the screen shows what was found before: nothing changes where it finds the same. */
export function deskKnown(of: Desk, opened: Opened): void {
  if (of !== desk) return;
  const { summaries, flags } = get();
  const shown = JSON.stringify([summaries, flags]);
  const found = JSON.stringify([opened.summaries, opened.flags ?? flags]);
  if (shown !== found) return deskReopened(of, opened);
  of.serial = opened.serial;
  of.laid = Math.min(opened.log.length, of.book.entries.length);
  set((now) => ({ opened: { ...opened, proposals: opened.proposals ?? now.opened?.proposals ?? null } }));
  void layAll(of);
}

/** Has the engine look for sets that might be made, where nobody asked for them before. */
export async function wantProposals(): Promise<void> {
  const of = desk;
  if (!of || of.serial === UNOPENED || get().opened?.proposals !== null) return;
  const answer = await outside().engine.ask('proposals', of.serial);
  if (of !== desk) return;
  if (!answer.ok) return set({ problem: answer.problem });
  const proposals = answer.value;
  if (proposals) set((now) => ({ opened: now.opened && { ...now.opened, proposals } }));
}

/** Whether the engine has laid all there is, and all that is shown is of it. */
export function isSettled(of: Desk): boolean {
  const { stale, flagsStale, laying } = get();
  return (
    of === desk &&
    of.serial !== UNOPENED &&
    of.columns === 'kept' &&
    of.laid === of.book.entries.length &&
    stale.size === 0 &&
    !flagsStale &&
    !laying
  );
}

/** The engine was started anew with the extract and its log as far as given. */
export function deskReopened(of: Desk, opened: Opened): void {
  if (of !== desk) return;
  of.serial = opened.serial;
  of.laid = Math.min(opened.log.length, of.book.entries.length);
  set((now) => ({
    opened,
    summaries: opened.summaries,
    ...(opened.flags === null ? {} : { flags: opened.flags }),
    flagsStale: opened.flags === null,
    aside: new Set(opened.aside),
    counts: opened.counts,
    account: opened.sieve,
    countedAll: opened.countedAll,
    stale: new Set(),
    base: now.base + 1,
    laid: now.laid + 1,
  }));
  void layAll(of);
  if (opened.flags === null) void recount(of, of.laid);
}

/** Entries of the open extract that the person made here and storage does not have. */
export const unkeptHere = (): readonly Entry[] => (get().id === desk?.id ? (desk?.book.unkept ?? []) : []);
