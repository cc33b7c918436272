'use client';

import { useRef, type RefObject } from 'react';
import type { ListAsk } from '../../core/inspect/listing';
import { askOrSay } from '../../store/asking';
import { countAgain, setRowsAside } from '../../store/decisions';
import { findWhole } from '../../store/reading';
import { changeTable, useSession, useParts, type Search } from '../../store/session';
import { addCondition } from '../../store/sieve';
import { isTyping } from '../keys/keys';
import { press } from '../keys/table';
import { copiedSays, copyRows } from './copyRows';
import { openRecord } from './openRecord';
import { ordered, type TableHandle } from './RecordTable';
import { nextSort } from './sorting';
import { moveColumn, nextFace } from './tableLook';

interface At {
  ask: ListAsk;
  /** Rows listed, and the place of the one at hand. */
  count: number;
  place: number;
  columns: readonly string[];
  column: string | null;
  pinned: string | null;
  chosen: readonly [number, number] | null;
  choose: (chosen: readonly [number, number] | null) => void;
  find: RefObject<HTMLInputElement | null>;
  handle: RefObject<TableHandle | null>;
  /** Tells what came of it. */
  say: (text: string) => void;
}

/** What identifies a row, and all columns. */
export const columnsFound = (columns: readonly string[], pinned: string | null): string[] => [
  ...new Set([...(pinned === null ? [] : [pinned]), ...columns]),
];

const NOT_HELD = 'not among the rows that are held: it can be looked at, and nothing decided of it';

/** What is done in the record table, and the keys that do it. */
export function useRowsDoings({
  ask,
  count,
  place,
  columns,
  column,
  pinned,
  chosen,
  choose,
  find,
  handle,
  say,
}: At): {
  onKey: (event: React.KeyboardEvent) => void;
  sortBy: (name: string, too: boolean) => void;
  next: (back: boolean, search?: Search) => Promise<void>;
  asideOrBack: () => Promise<void>;
} {
  const { table, id } = useParts('table', 'id');
  const copy = async ([from, to]: readonly [number, number]): Promise<void> => {
    const copied = await copyRows(ask, [from, to], columnsFound(columns, pinned));
    say(copiedSays(copied, to - from + 1));
  };
  /** The row at hand, zero-based, asked for when a key needs it; nothing can be decided of one that is not held. */
  const atHand = async (): Promise<number | null> => {
    if (column === null || count === 0) return null;
    const [one] = (await askOrSay('listedRows', ask, place, 1, [column])) ?? [];
    if (one && !one.held) say(NOT_HELD);
    return one?.held ? one.row - 1 : null;
  };
  const { make, made } = useConditionsOfCells(ask, place, column);
  const asideOrBack = async (): Promise<void> => {
    const [from, to] = chosen ?? [place, place];
    const listed = ((await askOrSay('listedRows', ask, from, to - from + 1, [])) ?? []).filter(
      ({ held }) => held,
    );
    if (listed.length < to - from + 1) say(NOT_HELD);
    if (listed.length === 0) return;
    const back = listed.filter(({ aside }) => aside);
    if (back.length === listed.length) await countAgain(back.map(({ row }) => row - 1));
    else
      await setRowsAside(
        listed.filter(({ aside }) => !aside).map(({ row }) => row - 1),
        null,
      );
    choose(null);
  };
  const goTo = (row: number, shift = false): boolean => {
    if (count === 0) return false;
    const next = Math.max(0, Math.min(count - 1, row));
    if (shift) {
      const start = chosen ? (chosen[0] === place ? chosen[1] : chosen[0]) : place;
      choose(ordered(start, next));
    } else choose(null);
    changeTable({ row: next });
    return true;
  };
  const goColumn = (to: number): boolean => {
    const name = columns[Math.max(0, Math.min(columns.length - 1, to))];
    if (name !== undefined) changeTable({ column: name });
    return name !== undefined;
  };
  const sortBy = (name: string, too: boolean): void =>
    changeTable({ sort: nextSort(table.sort, name, too), row: 0 });
  const goNext = async (back: boolean, search: Search | null): Promise<void> => {
    if (!search) return void find.current?.focus();
    const names = search.everywhere || column === null ? columnsFound(columns, pinned) : [column];
    changeTable({ search });
    if (ask.which === 'whole' && !(await findWhole(ask, search.text, names))) return;
    const at = await askOrSay('nextFound', ask, search.text, names, useSession.getState().table.row, back);
    if (at) changeTable({ row: at.place, ...(columns.includes(at.variable) ? { column: at.variable } : {}) });
  };
  // One after the other, so that each goes on from where the one before came to.
  const going = useRef(Promise.resolve());
  const next = (back: boolean, search = table.search): Promise<void> =>
    (going.current = going.current.then(() => goNext(back, search)));
  const here = column === null ? -1 : columns.indexOf(column);
  const screenful = (): number => handle.current?.screenful() ?? 20;
  const onKey = (event: React.KeyboardEvent): void => {
    // Alt moves columns, and is no typing here.
    if (isTyping(event) && !(event.altKey && event.key.startsWith('Arrow'))) return;
    const shift = event.shiftKey;
    const meant = press('rows', event.nativeEvent, {
      moveLeft: () => column !== null && moveColumn(id ?? '', columns, column, -1),
      moveRight: () => column !== null && moveColumn(id ?? '', columns, column, 1),
      cellUp: () => goTo(place - 1, shift),
      cellDown: () => goTo(place + 1, shift),
      cellLeft: () => goColumn(here - 1),
      cellRight: () => goColumn(here + 1),
      rowsUp: () => goTo(place - screenful(), shift),
      rowsDown: () => goTo(place + screenful(), shift),
      firstRow: () => goTo(0, shift),
      lastRow: () => goTo(count - 1, shift),
      firstColumn: () => goColumn(0),
      lastColumn: () => goColumn(columns.length - 1),
      openRecord: () => {
        if ((event.target as HTMLElement).closest('button, a')) return false;
        if (ask.which === 'whole') openRecord(place, null, column);
        else void atHand().then((row) => row !== null && openRecord(place, row, column));
      },
      find: () => find.current?.focus(),
      nextFound: () => void next(false),
      previousFound: () => void next(true),
      goRow: () => useSession.setState({ asking: 'gorow' }),
      sortBy: () => column !== null && sortBy(column, false),
      sortToo: () => column !== null && sortBy(column, true),
      keepLike: () => make(false),
      dropLike: () => make(true),
      // The field has to be there before the next key.
      correct: () =>
        ask.which === 'whole'
          ? void atHand().then((row) => row !== null && useSession.setState({ asking: 'cell' }))
          : useSession.setState({ asking: 'cell' }),
      aside: () => void asideOrBack(),
      face: nextFace,
      listKept: () =>
        changeTable({ which: table.which === 'dropped' ? 'kept' : 'dropped', flag: null, row: 0 }),
      copyRows: () => void copy(chosen ?? [place, place]),
      toConditions: () => void made(() => document.querySelector<HTMLElement>('.conditions')?.focus()),
    });
    if (meant) event.preventDefault();
  };
  return { onKey, sortBy, next, asideOrBack };
}

/** Conditions made of the cell at hand, one after the other. `made`: does something once those that are being made are shown. */
function useConditionsOfCells(
  ask: ListAsk,
  place: number,
  column: string | null,
): { make: (drop: boolean) => void; made: (then: () => void) => Promise<void> } {
  const making = useRef(Promise.resolve());
  const like = async (drop: boolean): Promise<void> => {
    if (column === null) return;
    const cell = await askOrSay('cellAt', ask, place, column);
    if (!cell) return;
    const { code, raw, state: is } = cell;
    const condition =
      is === 'blank' || is === 'notAsked'
        ? { variable: column, answered: false }
        : { variable: column, codes: [code ?? raw] };
    addCondition(drop ? { not: condition } : condition);
  };
  return {
    make: (drop) => {
      making.current = making.current.then(() => like(drop));
    },
    made: (then) => making.current.then(() => void requestAnimationFrame(then)),
  };
}
