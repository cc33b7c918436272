'use client';

import { memo } from 'react';
import { whole } from '../../core/handoff/words';
import type { ToldCell } from '../../core/inspect/told-rows';
import type { ListedRow } from '../../engine/records';
import { CellText, cellSays } from './CellText';
import { openRecord } from './openRecord';
import type { Face } from './tableLook';

/** Pixels: of a row, of what identifies it, and of the conditions that drop it. */
export const ROW = 27;
export const PINNED = 118;
export const FAILS = 74;
const LEAST_MARGIN = 96;
const DIGIT = 7.6;
/** The same of the number and the line of a row, of so many. */
export const marginOf = (rows: number): number =>
  rows < 100_000 ? LEAST_MARGIN : 26 + 2 * Math.ceil(DIGIT * whole(rows).length);

interface Props {
  /** Zero-based, in the listing. */
  place: number;
  top: number;
  /** `null` while it is being read. */
  row: ListedRow | null;
  cellAt: (place: number, column: number) => ToldCell | undefined;
  /** Changes whenever `cellAt` has more to say of this row. */
  version: string;
  columns: readonly { at: number; name: string; left: number; width: number }[];
  /** Width of what stands still. */
  fixed: number;
  margin: number;
  pinned: string | null;
  /** Numbers of the conditions, where it is told which of them drop the row. */
  numbers: ReadonlyMap<string, number> | null;
  face: Face;
  /** The column at hand, where this is the row at hand. */
  at: number | null;
  chosen: boolean;
  nameOf: (name: string) => string;
  take: (place: number, name: string | null, shift: boolean) => void;
}

/** While one scrolls most rows are the same as before: those are not drawn again. What is called is always the same. */
const same = (a: Props, b: Props): boolean =>
  a.place === b.place &&
  a.top === b.top &&
  a.row === b.row &&
  a.version === b.version &&
  a.columns === b.columns &&
  a.fixed === b.fixed &&
  a.pinned === b.pinned &&
  a.numbers === b.numbers &&
  a.face === b.face &&
  a.at === b.at &&
  a.chosen === b.chosen;

/** A row as far as it is seen: what tells it apart stands still, its cells at the places of their columns. */
export const RecordRow = memo(function RecordRow({
  place,
  top,
  row,
  cellAt,
  columns,
  fixed,
  margin,
  pinned,
  numbers,
  face,
  at,
  chosen,
  nameOf,
  take,
}: Props) {
  const stands = row && `${row.file}${row.line === null ? '' : `, line ${whole(row.line)}`}`;
  const card = (name: string | null): void => {
    if (row) openRecord(place, row.held ? row.row - 1 : null, name);
  };
  return (
    <div
      role="row"
      aria-rowindex={place + 2}
      aria-selected={chosen}
      className={`recordrow${at === null ? '' : ' current'}${chosen ? ' chosen' : ''}${row?.aside ? ' aside' : ''}`}
      style={{ transform: `translateY(${top}px)`, height: ROW }}
    >
      <div className="fixedcells" style={{ width: fixed }}>
        <div
          role="rowheader"
          className="margin n"
          style={{ width: margin }}
          title={stands ? `${stands}${row.aside ? '; set aside, it counts nowhere' : ''}` : undefined}
          onClick={(event) => take(place, null, event.shiftKey)}
          onDoubleClick={() => card(null)}
        >
          {row ? whole(row.place) : '·'}{' '}
          <span className="soft">{row && row.line !== null ? whole(row.line) : ''}</span>
        </div>
        {numbers && (
          <div role="gridcell" style={{ width: FAILS }}>
            {row?.failed.map((id) => numbers.get(id)).join(', ')}
          </div>
        )}
        {pinned !== null && (
          <div
            role="gridcell"
            className="code"
            style={{ width: PINNED }}
            title={row?.cells[0]?.raw}
            onClick={(event) => take(place, null, event.shiftKey)}
          >
            {row?.cells[0]?.code ?? row?.cells[0]?.raw ?? '·'}
          </div>
        )}
      </div>
      {columns.map(({ at: column, name, left, width }) => {
        const cell = cellAt(place, column);
        return (
          <div
            key={name}
            id={`cell-${place}-${column}`}
            role="gridcell"
            aria-label={cell ? `${nameOf(name)}: ${cellSays(cell)}` : 'being read'}
            title={cell ? cellSays(cell) : undefined}
            className={`movable cell state-${cell?.state ?? 'read'}${cell?.corrected ? ' corrected' : ''}${at === column ? ' at' : ''}`}
            style={{ left, width }}
            onClick={(event) => take(place, name, event.shiftKey)}
            onDoubleClick={() => card(name)}
          >
            {cell ? <CellText cell={cell} face={face} /> : <span className="soft">·</span>}
          </div>
        );
      })}
    </div>
  );
}, same);
