'use client';

import { create } from 'zustand';
import type { Flag } from '../core/flags/rule';
import type { StandingRule } from '../core/flags/standing-rules';
import type { Problem } from '../core/extract/problem';
import type { Summary } from '../core/inspect/summary';
import { entryOf, type Decision, type Entry } from '../core/log/entries';
import { foldLog, lastInForce, type State } from '../core/log/fold';
import { callback, engineOf } from '../engine/client';
import { NARROW_NOTHING, type Narrow } from './narrow';
import type { Answer, Opened, Plan, Progress } from '../engine/engine';
import {
  keepEntry,
  keepStanding,
  keepView,
  lastOpen,
  listKept,
  openLog,
  openStanding,
  openView,
  refusal,
  removeKept,
  renameKept,
  setLastOpen,
  type Kept,
  type View,
} from './kept';

export type Station = 'intake' | 'inventory' | 'flags' | 'handoff';
/** What the demo is read from; the fixed-width twin of its last wave can be fetched beside them. */
const DEMO_FILES = ['upkeep_2019.csv', 'upkeep_2020.csv', 'upkeep_2021.csv', 'upkeep_2022.csv', 'upkeep.xml'];
export const STATIONS: readonly Station[] = ['intake', 'inventory', 'flags', 'handoff'];

/** Where what is done is kept. */
export type Keeping = { state: 'kept' | 'keeping' } | { state: 'memory'; says: string };

export interface Session {
  station: Station;
  /** Identity of the open extract in the browser's storage; `null` while none is open. */
  id: string | null;
  opened: Opened | null;
  summaries: Summary[];
  flags: Flag[];
  log: Entry[];
  state: State;
  current: string | null;
  chosen: ReadonlySet<string>;
  search: string;
  sort: View['sort'];
  /** Variables whose profile was looked at. */
  seen: ReadonlySet<string>;
  narrow: Narrow;
  reading: Progress | null;
  problem: Problem | null;
  keeping: Keeping;
  kept: Kept[];
  /** What the open extract was read from, while this tab still has the files at hand. */
  plan: Plan | null;
  /** Counts the times that rulings were laid, so that what was asked before is asked again. */
  laid: number;
  /** The profile takes the whole middle. */
  wide: boolean;
  /** The dialog that is open. */
  asking:
    'kind' | 'set' | 'codes' | 'name' | 'note' | 'jump' | 'order' | 'together' | 'ruling' | 'standing' | null;
  /** What the person knows of an archive's codes, whatever the extract. */
  standing: StandingRule[];
  /** The row whose record card is open; zero-based. */
  record: number | null;
}

const NOTHING: Omit<Session, 'station' | 'standing' | 'kept' | 'reading' | 'problem' | 'keeping'> = {
  id: null,
  opened: null,
  summaries: [],
  flags: [],
  log: [],
  state: foldLog([]),
  current: null,
  chosen: new Set(),
  search: '',
  sort: { by: 'position', down: false },
  seen: new Set(),
  narrow: NARROW_NOTHING,
  plan: null,
  laid: 0,
  wide: false,
  asking: null,
  record: null,
};

export const useSession = create<Session>(() => ({
  ...NOTHING,
  standing: [],
  station: 'intake',
  reading: null,
  problem: null,
  keeping: { state: 'kept' },
  kept: [],
}));
const { getState: get, setState: set } = useSession;

/** Runs a write to storage; a refusal is said and the work goes on in memory. */
async function keeping(write: () => Promise<unknown>): Promise<void> {
  try {
    await write();
  } catch (cause) {
    set({ keeping: { state: 'memory', says: refusal(cause) } });
  }
}

export async function refreshKept(): Promise<void> {
  await keeping(async () => set({ kept: await listKept() }));
}

/** At the start: the list of kept extracts, and the one that was open last, as it was left. */
export async function begin(): Promise<void> {
  await refreshKept();
  set({ standing: await openStanding().catch(() => []) });
  await engineOf().follow(get().standing);
  const id = await lastOpen().catch(() => null);
  if (id && get().kept.some((kept) => kept.id === id)) await openAgain(id);
}

/** Proposes by other standing rules from now on, in this extract and every other. */
export async function standBy(standing: StandingRule[]): Promise<void> {
  set({ standing });
  await keeping(() => keepStanding(standing));
  const flags = await engineOf().follow(standing);
  if (get().opened) set((now) => ({ flags, laid: now.laid + 1 }));
}

const tell = callback((now: Progress) => {
  if (get().reading) set({ reading: now });
});

/** What becomes of files that are read: an extract of their own, part of the open one, or the open one whole where it was only looked at. */
export type Into = 'new' | 'added' | 'whole';

/** A plan for files that nobody chose anything about. */
export const planOf = (files: readonly File[]): Plan => ({
  handed: files.map((file) => ({ key: crypto.randomUUID(), file })),
  chosen: {},
  left: [],
  waves: {},
  waveFrom: 'found',
  part: null,
  marks: {},
});

/**
 * Reads what a plan holds. What was open stays as it is unless all went well.
 * @param missing texts that a person took for marks of nothing: they are declared missing wherever they stand
 * @returns whether it was read
 */
export async function readPlan(
  plan: Plan,
  into: Into = 'new',
  missing: readonly string[] = [],
): Promise<boolean> {
  const { log, opened, plan: before } = get();
  const done = await working(
    'Reading',
    plan.handed.reduce((sum, { file }) => sum + file.size, 0),
    () => {
      if (into === 'added') return engineOf().add(plan, log, tell);
      return engineOf().read(
        plan,
        into === 'whole' ? log : [],
        into === 'whole' ? (opened?.name ?? null) : null,
        tell,
      );
    },
    into !== 'new',
  );
  if (!done) return false;
  // What was added later is not in the first plan; both together are.
  set({
    plan:
      into === 'added'
        ? before && {
            ...before,
            handed: [...before.handed, ...plan.handed],
            chosen: { ...before.chosen, ...plan.chosen },
            left: [...before.left, ...plan.left],
            waves: { ...before.waves, ...plan.waves },
          }
        : plan,
  });
  if (missing.length) {
    const holding = await engineOf().holding([...missing]);
    // Texts in the same variables are one ruling.
    const together = new Map<string, string[]>();
    for (const [text, variables] of Object.entries(holding))
      if (variables.length)
        together.set(variables.join('\n'), [...(together.get(variables.join('\n')) ?? []), text]);
    for (const [variables, texts] of together)
      await decide({
        type: 'declare-missing',
        variables: variables.split('\n'),
        codes: texts.map((code) => ({ code, reason: 'other' })),
        rule: null,
      });
  }
  return true;
}

/** Reads what a first look left out, where the files are still at hand; else goes to where they are brought again. */
export async function readWhole(): Promise<void> {
  const { plan } = get();
  if (plan) await readPlan({ ...plan, part: null }, 'whole');
  else
    set({
      station: 'intake',
      problem: {
        file: get().opened?.name ?? 'the extract',
        says: 'its files are no longer at hand; bring them again here, and read them in its place: your rulings stay',
      },
    });
}

/** Takes one file's rows out of the open extract. @param index its zero-based place among the files */
export const leaveOut = async (index: number): Promise<void> => {
  const { opened, log } = get();
  if (
    opened &&
    (await working(
      `Leaving out ${opened.files[index].name}`,
      1,
      () => engineOf().leaveOut(index, log, tell),
      true,
    ))
  )
    set({ plan: null, station: 'intake' });
};

/** Calls the files of the open extract otherwise among its waves. */
export const callWaves = async (waves: string[]): Promise<void> => {
  const { opened, log } = get();
  if (opened && (await working('Naming the waves', 1, () => engineOf().callWaves(waves, log, tell), true)))
    set({ station: 'intake' });
};

/** Long work that ends with an extract open and kept. @param again the open one in another shape: its log, view and place stay */
async function working(
  says: string,
  whole: number,
  work: () => Promise<Answer<Opened>>,
  again: boolean,
): Promise<boolean> {
  set({ reading: { says, done: 0, whole, rows: 0 }, problem: null });
  const answer = await work();
  const { id: old, log, plan, current, chosen, search, sort, seen, narrow } = get();
  set({ reading: null });
  if (!answer.ok) {
    set({ problem: answer.problem });
    return false;
  }
  const id = crypto.randomUUID();
  show(
    id,
    answer.value,
    again ? log : [],
    again
      ? {
          current,
          chosen: [...chosen],
          search,
          sort,
          station: 'inventory',
          seen: [...seen],
          narrow: { ...narrow },
        }
      : null,
  );
  set({ keeping: { state: 'keeping' }, plan: again ? plan : null });
  void keepNow(id, again ? old : null);
  return true;
}

/** Keeps the open extract. @param instead of the one it takes the place of, which goes only when all is kept */
async function keepNow(id: string, instead: string | null): Promise<void> {
  const result = await engineOf().keep(id);
  if (get().id !== id) {
    // Another was opened meanwhile: nobody would find this one again in the state it was left.
    if ('kept' in result && instead) await keeping(() => removeKept(id));
    return;
  }
  if ('refused' in result) {
    set({ keeping: { state: 'memory', says: result.refused } });
    return;
  }
  set({ keeping: { state: 'kept' } });
  await keeping(() => setLastOpen(id));
  // What was decided before, and while the columns were being written.
  await keeping(async () => {
    for (const [place, entry] of get().log.entries()) await keepEntry(id, place, entry);
    if (instead) await removeKept(instead);
  });
  await refreshKept();
}

/** The demo by one click: its files come from here and are read like any others. */
export async function readDemo(): Promise<void> {
  set({ reading: { says: 'Fetching the demo', done: 0, whole: 1, rows: 0 }, problem: null });
  try {
    const files = await Promise.all(
      DEMO_FILES.map(async (name) => {
        const answer = await fetch(`/demo/${name}`);
        if (!answer.ok) throw new Error(`the demo file ${name} did not come (${answer.status})`);
        return new File([await answer.blob()], name);
      }),
    );
    await readPlan(planOf(files));
  } catch (cause) {
    set({
      reading: null,
      problem: { file: 'demo', says: `${(cause as Error).message}; is the program still running?` },
    });
  }
}

export async function openAgain(id: string): Promise<void> {
  set({ reading: { says: 'Opening', done: 0, whole: 1, rows: 0 }, problem: null });
  const log = await openLog(id).catch(() => ({ entries: [], unreadable: 0 }));
  const answer = await engineOf().open(id, log.entries, tell);
  set({ reading: null });
  if (!answer.ok) {
    set({ problem: answer.problem, station: 'intake' });
    return;
  }
  show(id, answer.value, log.entries, await openView(id).catch(() => null));
  set({ keeping: { state: 'kept' } });
  if (log.unreadable)
    set({
      problem: {
        file: answer.value.name,
        says: `${log.unreadable} entries of its dig log could not be read and are left out`,
      },
    });
  await keeping(() => setLastOpen(id));
}

function show(id: string, opened: Opened, log: Entry[], view: View | null): void {
  const known = new Set(opened.summaries.map(({ name }) => name));
  set({
    ...NOTHING,
    id,
    opened,
    log,
    summaries: opened.summaries,
    flags: opened.flags,
    state: foldLog(log),
    station: STATIONS.find((station) => station === view?.station) ?? 'inventory',
    current: view?.current && known.has(view.current) ? view.current : (opened.summaries[0]?.name ?? null),
    chosen: new Set(view?.chosen.filter((name) => known.has(name))),
    search: view?.search ?? '',
    sort: view?.sort ?? NOTHING.sort,
    seen: new Set(view?.seen.filter((name) => known.has(name))),
    narrow: { ...NARROW_NOTHING, ...view?.narrow },
  });
}

/** Gives a kept extract another name; its data and rulings stay. */
export async function rename(id: string, name: string): Promise<void> {
  await keeping(() => renameKept(id, name));
  const { opened } = get();
  if (get().id === id && opened) {
    set({ opened: { ...opened, name } });
    await engineOf().callIt(name);
  }
  await refreshKept();
}

/** Removes a kept extract with its rulings, and closes it if it is open. */
export async function remove(id: string): Promise<void> {
  await keeping(() => removeKept(id));
  if (get().id === id) set({ ...NOTHING, station: 'intake' });
  await refreshKept();
}

export const stopReading = (): void => void engineOf().stop();
export const dismissProblem = (): void => set({ problem: null });

/** A person decides: the entry joins the log, is laid over the extract, and is kept. */
export async function decide(decision: Decision): Promise<void> {
  const { log, id, keeping: where } = get();
  const entry = entryOf(decision, crypto.randomUUID(), new Date());
  const longer = [...log, entry];
  set({ log: longer, state: foldLog(longer) });
  if (id && where.state === 'kept') await keeping(() => keepEntry(id, log.length, entry));
  const { summaries, flags } = await engineOf().lay(get().log);
  const changed = new Map(summaries.map((summary) => [summary.name, summary]));
  set((now) => ({
    summaries: now.summaries.map((summary) => changed.get(summary.name) ?? summary),
    flags,
    laid: now.laid + 1,
  }));
}

/** The variables that a ruling by key is about: all chosen in the ledger, else the one at hand. */
export function atHand({ station, chosen, current }: Session): string[] {
  if (station === 'inventory' && chosen.size) return [...chosen];
  return current ? [current] : [];
}

/** Confirms the presumed kinds of what is at hand. */
export function confirmKinds(): void {
  const names = new Set(atHand(get()));
  const kinds = get()
    .summaries.filter(({ name, confirmed }) => names.has(name) && !confirmed)
    .map(({ name, kind }) => ({ variable: name, kind }));
  if (kinds.length) void decide({ type: 'confirm-kind', kinds });
}

/** Signs off what is at hand, or takes that back where all of it is signed off. */
export function signOff(): void {
  const names = atHand(get());
  const { signedOff } = get().state;
  const done = !names.every((name) => signedOff.has(name));
  const touched = names.filter((name) => signedOff.has(name) !== done);
  if (touched.length) void decide({ type: 'sign-off', variables: touched, done });
}

/** A variable was looked at. */
export const sawIt = (name: string): void => {
  if (!get().seen.has(name)) set((now) => ({ seen: new Set([...now.seen, name]) }));
};

export function undoLast(): Promise<void> {
  const last = lastInForce(get().log);
  return last ? decide({ type: 'undo', entry: last.id }) : Promise.resolve();
}

export const undo = (entry: string): Promise<void> => decide({ type: 'undo', entry });

let waiting: ReturnType<typeof setTimeout> | null = null;

/** Keeps how the screen was left, a moment after it stops changing. */
useSession.subscribe((now, before) => {
  const same =
    now.current === before.current &&
    now.chosen === before.chosen &&
    now.search === before.search &&
    now.sort === before.sort &&
    now.station === before.station &&
    now.seen === before.seen &&
    now.narrow === before.narrow;
  if (!now.id || same || now.keeping.state !== 'kept') return;
  if (waiting) clearTimeout(waiting);
  waiting = setTimeout(() => {
    const { id, current, chosen, search, sort, station, seen, narrow } = get();
    if (id)
      void keeping(() =>
        keepView(id, {
          current,
          chosen: [...chosen],
          search,
          sort,
          station,
          seen: [...seen],
          narrow: { ...narrow },
        }),
      );
  }, 250);
});
