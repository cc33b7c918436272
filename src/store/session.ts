'use client';

import { create } from 'zustand';
import type { Problem } from '../core/extract/problem';
import type { Flag } from '../core/flags/rule';
import type { StandingRule } from '../core/flags/standing-rules';
import type { Summary } from '../core/inspect/summary';
import type { Entry } from '../core/log/entries';
import { foldLog, type State } from '../core/log/fold';
import type { Opened, Plan, Progress } from '../engine/protocol';
import type { Kept, Unusable } from '../storage/records';
import type { View } from '../storage/view';
import { NARROW_NOTHING, type Narrow } from './narrow';

export type Station = 'intake' | 'inventory' | 'flags' | 'sets' | 'handoff';
export const STATIONS: readonly Station[] = ['intake', 'inventory', 'flags', 'sets', 'handoff'];

/** Where what is done is kept. `again`: whether trying once more may help. */
export type Keeping = { state: 'kept' | 'keeping' } | { state: 'memory'; says: string; again: boolean };

/** Dialogs that can be open. */
export type Asking =
  | 'kind'
  | 'set'
  | 'into'
  | 'nameset'
  | 'split'
  | 'codes'
  | 'name'
  | 'note'
  | 'jump'
  | 'order'
  | 'together'
  | 'ruling'
  | 'standing';

export interface Session {
  station: Station;
  /** Identity of the open extract in the browser's storage; `null` while none is open. */
  id: string | null;
  opened: Opened | null;
  summaries: Summary[];
  flags: Flag[];
  log: Entry[];
  state: State;
  /** Rows set aside; zero-based, of the whole extract. */
  aside: ReadonlySet<number>;
  /** Flags that a ruling answers which the engine has not laid yet; by their keys. */
  answered: ReadonlySet<string>;
  /** Rulings are being counted. */
  laying: boolean;
  current: string | null;
  chosen: ReadonlySet<string>;
  search: string;
  /** The list shows what is out of view too. */
  beyond: boolean;
  /** The set whose variables are looked at on the map, and what is put into sets there: by their keys and names. */
  onMap: { block: string | null; variables: readonly string[] };
  sort: View['sort'];
  /** Variables whose profile was looked at. */
  seen: ReadonlySet<string>;
  narrow: Narrow;
  reading: Progress | null;
  problem: Problem | null;
  /** What is wrong with the engine itself, and whether starting it anew is offered. */
  trouble: { says: string; restart: boolean } | null;
  keeping: Keeping;
  kept: Kept[];
  /** What is kept and cannot be opened. */
  unusable: Unusable[];
  /** What the open extract was read from, while this tab still has the files at hand. */
  plan: Plan | null;
  /** Counts the times that rulings were laid, so that what was asked before is asked again. */
  laid: number;
  /** The profile takes the whole middle. */
  wide: boolean;
  /** The dialog that is open. */
  asking: Asking | null;
  /** What the person knows of an archive's codes, whatever the extract. */
  standing: StandingRule[];
  /** The row whose record card is open; zero-based. */
  record: number | null;
}

/** What a session holds of an extract while none is open. */
export const NOTHING: Omit<
  Session,
  'station' | 'standing' | 'kept' | 'unusable' | 'reading' | 'problem' | 'trouble' | 'keeping'
> = {
  id: null,
  opened: null,
  summaries: [],
  flags: [],
  log: [],
  state: foldLog([]),
  aside: new Set(),
  answered: new Set(),
  laying: false,
  current: null,
  chosen: new Set(),
  search: '',
  beyond: false,
  onMap: { block: null, variables: [] },
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
  trouble: null,
  keeping: { state: 'kept' },
  kept: [],
  unusable: [],
}));

/** Opens a dialog. */
export const askFor = (asking: Asking): void => useSession.setState({ asking });

export const dismissProblem = (): void => useSession.setState({ problem: null });

/** The variables that a ruling by key is about: all chosen in the ledger, else the one at hand. */
export function atHand({ station, chosen, current, onMap }: Session): string[] {
  if (station === 'inventory' && chosen.size) return [...chosen];
  if (station === 'sets') return [...onMap.variables];
  return current ? [current] : [];
}

/** A variable was looked at. */
export const sawIt = (name: string): void => {
  if (!useSession.getState().seen.has(name))
    useSession.setState((now) => ({ seen: new Set([...now.seen, name]) }));
};
