'use client';

import { useCallback, useImperativeHandle, useMemo, useRef, type CSSProperties, type Ref } from 'react';
import type { ListAsk } from '../../core/inspect/listing';
import { counted } from '../../core/handoff/words';
import { changeTable, useParts } from '../../store/session';
import { ProblemText } from '../asking/ProblemText';
import { TableHead } from './TableHead';
import { FAILS, marginOf, PINNED, RecordRow, ROW } from './RecordRow';
import { inOrder, USUAL_WIDTH, useTableLook } from './tableLook';
import { useRecords } from './useRecords';
import { HEAD, useRecordWindow } from './useRecordWindow';

/** Rows that stand at their places whichever of them are seen. */
const ORIGINS = 2000;

/** What the keys and the bar above ask of the table. */
export interface TableHandle {
  /** Rows that fit. */
  screenful: () => number;
  focus: () => void;
}

/** Records as a table that scrolls both ways over any number of rows and variables: only what is seen is read and drawn. */
export function RecordTable({
  ask,
  rows,
  columns,
  pinned,
  chosen,
  choose,
  sortBy,
  numbers,
  handle,
}: {
  ask: ListAsk;
  /** Number of rows of the listing. */
  rows: number;
  columns: readonly string[];
  /** What identifies a row, where something does. */
  pinned: string | null;
  /** Places of the first and the last row chosen. */
  chosen: readonly [number, number] | null;
  choose: (chosen: readonly [number, number] | null) => void;
  sortBy: (name: string, too: boolean) => void;
  /** The conditions of the sieve at hand by their ids, as they are numbered. */
  numbers: ReadonlyMap<string, number>;
  handle: Ref<TableHandle>;
}) {
  const { table, state, opened } = useParts('table', 'state', 'opened');
  const { face, widths } = useTableLook();
  const showsFails = ask.which === 'dropped';
  const margin = marginOf(opened?.rows ?? rows);
  const fixed = margin + (pinned === null ? 0 : PINNED) + (showsFails ? FAILS : 0);
  const { scroller, starts, total, top, left, width, height, tall, seen, first, last, from, to, column } =
    useRecordWindow(rows, columns, fixed);
  const pins = useMemo(() => (pinned === null ? [] : [pinned]), [pinned]);
  const records = useRecords(ask, pins, columns, { first, last, from, to });

  useImperativeHandle(handle, () => ({
    screenful: () => Math.max(1, seen - 1),
    focus: () => scroller.current?.focus(),
  }));
  const drawn = Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i);
  const isChosen = (place: number): boolean => chosen !== null && place >= chosen[0] && place <= chosen[1];
  // Always the same function, so that rows that did not change are not drawn again.
  // Of fewer rows than before the last is at hand.
  const at = Math.max(0, Math.min(table.row, rows - 1));
  const latest = useRef({ chosen, choose, row: at });
  latest.current = { chosen, choose, row: at };
  const take = useCallback((place: number, name: string | null, shift: boolean): void => {
    const { chosen: before, choose: pick, row } = latest.current;
    if (shift) pick(before ? [Math.min(before[0], place), Math.max(before[1], place)] : ordered(row, place));
    else pick(null);
    changeTable({ row: place, ...(name === null ? {} : { column: name }) });
  }, []);
  // Rows stand at places that stay the same while one scrolls a while.
  const origin = Math.floor(first / ORIGINS) * ORIGINS;
  const placed = useMemo(
    () =>
      Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => ({
        at: from + i,
        name: columns[from + i],
        left: fixed + starts[from + i],
        width: widths[columns[from + i]] ?? USUAL_WIDTH,
      })),
    [columns, starts, widths, fixed, from, to],
  );
  const nameOf = (name: string): string => state.called.get(name)?.name ?? name;
  return (
    <>
      {records.problem && <ProblemText problem={records.problem} />}
      <div
        className="recordtable"
        ref={scroller}
        tabIndex={0}
        role="grid"
        aria-label="Records"
        aria-rowcount={rows + 1}
        aria-colcount={columns.length + 1}
        aria-activedescendant={
          at >= first && at <= last && column >= from && column <= to ? `cell-${at}-${column}` : undefined
        }
        data-testid="records"
      >
        <div className="recordroom" style={{ height: tall, width: total + fixed }}>
          <div className="recordview" style={{ width, height, '--left': `${left}px` } as CSSProperties}>
            <TableHead
              columns={placed}
              left={left}
              fixed={fixed}
              margin={margin}
              pinned={pinned}
              showsFails={showsFails}
              nameOf={nameOf}
              sortBy={sortBy}
            />
            <div
              className="recordrows"
              role="presentation"
              style={{ transform: `translateY(${HEAD - (top - origin) * ROW}px)` }}
            >
              {drawn.map((place) => (
                <RecordRow
                  key={place}
                  place={place}
                  top={(place - origin) * ROW}
                  row={records.row(place)}
                  cellAt={records.cell}
                  version={records.version(place)}
                  columns={placed}
                  fixed={fixed}
                  margin={margin}
                  pinned={pinned}
                  numbers={showsFails ? numbers : null}
                  face={face}
                  at={place === at ? column : null}
                  chosen={isChosen(place)}
                  nameOf={nameOf}
                  take={take}
                />
              ))}
            </div>
            {rows === 0 && (
              <p className="soft norows">
                No row is listed.{' '}
                {ask.which === 'kept'
                  ? 'The sieve keeps nobody: switch a condition off, or turn it round.'
                  : ''}
              </p>
            )}
          </div>
        </div>
      </div>
    </>
  );
}

export const ordered = (a: number, b: number): readonly [number, number] => (a < b ? [a, b] : [b, a]);

/** Columns of the table in their order: variables in view as the ledger has them, or as they were moved. */
export const tableColumns = (
  names: readonly string[],
  pinned: string | null,
  moved: readonly string[] | undefined,
): string[] =>
  inOrder(
    names.filter((name) => name !== pinned),
    moved,
  );

/** "2,410 rows kept". */
export const listedSays = (which: ListAsk['which'], rows: number): string =>
  ({
    kept: `${counted(rows, 'row')} kept`,
    dropped: `${counted(rows, 'row')} dropped`,
    there: `all ${counted(rows, 'row')} that count`,
    received: `all ${counted(rows, 'row')}, those set aside too`,
    flag: `${counted(rows, 'row')} of the flag`,
    whole: `${counted(rows, 'row')} as the files hold them`,
  })[which];
