'use client';

import { create } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { KeptTable } from '../core/cross/kept-table';
import type { Problem } from '../core/extract/problem';
import type { Flag } from '../core/flags/rule';
import type { StandingRule } from '../core/flags/standing-rules';
import type { RowCounts } from '../core/inspect/schema';
import type { Sorting } from '../core/inspect/listed';
import type { ListAsk } from '../core/inspect/listing';
import type { Everything, Side } from './cross-words';
import type { Beside } from '../core/inspect/beside';
import type { RecordAt } from '../core/inspect/record';
import type { Replay } from '../core/inspect/replay';
import type { Skip } from '../core/inspect/skip';
import type { Summary } from '../core/inspect/summary';
import type { Entry } from '../core/log/entries';
import { foldLog, type State } from '../core/log/fold';
import type { Condition, Part } from '../core/sieve/condition';
import type { ConditionAccount } from '../core/sieve/sift';
import type { Opened, Plan, Progress } from '../engine/protocol';
import type { Kept, Unusable } from '../storage/records';
import type { View } from '../storage/view';
import { NARROW_NOTHING, type Narrow } from './narrow';

export const STATIONS = ['intake', 'inventory', 'flags', 'sets', 'rows', 'cross', 'handoff'] as const;
export type Station = (typeof STATIONS)[number];

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
  | 'standing'
  | 'condition'
  | 'cell'
  | 'sheet'
  | 'addrow'
  | 'changed'
  | 'gorow'
  | 'namesieve'
  | 'side'
  | 'recode'
  | 'replay'
  | 'beside'
  | 'database';

/** What the record table lists, and where the person is in it. */
export interface TableView {
  which: ListAsk['which'];
  flag: ListAsk['flag'];
  sort: readonly Sorting[];
  /** The listing of all rows, where it is made: its number, and what it was made under. */
  whole?: { number: number; under: string };
  /** Zero-based place in the listing, and the variable, of the cell at hand. */
  row: number;
  column: string | null;
  /** What is looked for. */
  search: Search | null;
}

/** A text that is looked for in cells. */
export interface Search {
  text: string;
  /** In all variables, or only in the one at hand. */
  everywhere: boolean;
}

/** What the cross-checks show: what is held against what, how it is told, and where the person is in it. */
export interface CrossView extends Omit<KeptTable, 'down'> {
  /** `null` while nothing is held against anything. */
  down: string | null;
  view: 'table' | 'everything';
  /** Who was asked, where the table is to show whether that holds. */
  skip: Skip | null;
  /** The cell at hand: places of the table, the line and the column; behind the last line and column stand the margins. */
  at: { table: number; line: number; column: number } | null;
}

/** A sieve as it is being made. */
export interface Draft {
  /** The sieve that it changes; `null` for a new one. */
  sieve: string | null;
  name: string;
  parts: readonly Part[];
}

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
  /** Rows that are there, and those that the sieve in force keeps: what every number on the screen is of. */
  counts: RowCounts;
  /** What the sieve in force does, as the numbers on the screen have it; empty without one. */
  account: readonly ConditionAccount[];
  /** Where only a sample of the rows is held: whether all were gone through for what the sieve keeps and for tables. */
  countedAll: boolean;
  /** How far the engine is with an extract whose figures were found before; `null` where it has it. */
  behind: Progress | null;
  /** Counts the times that other rows came to count: no answer from before is of these. */
  base: number;
  /** Variables whose numbers are of other rows than those that count now, and are not shown until they are counted. */
  stale: ReadonlySet<string>;
  /** The same of the flags. */
  flagsStale: boolean;
  /** A sieve that is being made, not in force. */
  draft: Draft | null;
  /** The condition that is being made: on which variable, in place of which other, and what is filled in. */
  asked: { variable: string | null; part: string | null; condition: Condition | null };
  /** What the record table lists, and how. */
  table: TableView;
  crossing: CrossView;
  /** One variable against all others, as far as it was held. */
  everything: Everything | null;
  /** The side of a table that is being filled, or what is held against all others. */
  side: Side | 'everything' | 'against';
  /** Conditions that were made to look at the rows of a cell: the next look takes their place. */
  looked: readonly string[];
  /** An earlier log that is held against the open extract. */
  earlier: { name: string; entries: Entry[]; replay: Replay } | null;
  /** The table that is asked for again, where its log is kept. */
  tableAgain: Kept['database'] | null;
  /** The open extract beside an earlier one. */
  beside: Beside | null;
  /** The trial recode that is being made, or changed where it has a name. */
  recoding: { of: string; name: string | null; side: Side | null };
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
  /** The row whose record card is open. */
  record: RecordAt | null;
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
  behind: null,
  counts: { all: 0, aside: 0, kept: 0 },
  account: [],
  countedAll: false,
  base: 0,
  stale: new Set(),
  flagsStale: false,
  draft: null,
  asked: { variable: null, part: null, condition: null },
  table: { which: 'kept', flag: null, sort: [], row: 0, column: null, search: null },
  crossing: {
    down: null,
    across: null,
    within: null,
    measure: null,
    withMissing: false,
    small: 10,
    blank: false,
    bins: {},
    shows: ['rows', 'ofRow'],
    measured: ['n', 'median'],
    view: 'table',
    skip: null,
    at: null,
  },
  everything: null,
  side: 'down',
  looked: [],
  earlier: null,
  tableAgain: null,
  beside: null,
  recoding: { of: '', name: null, side: null },
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

/** Some of the session: drawn again only when one of them changes. */
export const useParts = <K extends keyof Session>(...keys: readonly K[]): Pick<Session, K> =>
  useSession(useShallow((now) => Object.fromEntries(keys.map((key) => [key, now[key]])) as Pick<Session, K>));

/** Opens a dialog. */
export const askFor = (asking: Asking): void => useSession.setState({ asking });

/** The same from a menu, which takes the focus back as it closes: what is typed next belongs to the dialog. */
export const askFromMenu = (asking: Asking): void => void setTimeout(() => askFor(asking));

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

/** Opens the making of a condition. @param variable `null` where it is still to be picked */
export const askCondition = (
  variable: string | null,
  condition: Condition | null = null,
  part: string | null = null,
): void => useSession.setState({ asking: 'condition', asked: { variable, condition, part } });

/** Changes what the record table lists, or how. */
export const changeTable = (change: Partial<TableView>): void =>
  useSession.setState((now) => ({ table: { ...now.table, ...change } }));

/** Goes to the record table. */
export const lookAtRows = (change: Partial<TableView> = {}): void =>
  useSession.setState((now) => ({
    station: 'rows',
    wide: false,
    table: { ...now.table, row: 0, ...change },
  }));
