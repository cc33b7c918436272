'use client';

import { useEffect, useMemo } from 'react';
import { useSession } from '../../store/session';
import { ROW } from './RecordRow';
import { USUAL_WIDTH, useTableLook } from './tableLook';
import { useTall, type Tall } from './useTall';

/** Pixels of the names above the rows. */
export const HEAD = 46;
/** Rows drawn beyond those that are seen. */
const OVER = 4;

export interface RecordWindow extends Pick<Tall, 'scroller' | 'top' | 'left' | 'width' | 'height' | 'tall'> {
  /** Pixels at which each column begins, and of all together. */
  starts: readonly number[];
  total: number;
  /** Rows that fit. */
  seen: number;
  /** Places of the rows and of the columns that are drawn. */
  first: number;
  last: number;
  from: number;
  to: number;
  /** Place of the column at hand; −1 where it is none of these. */
  column: number;
}

/** The part of the record table that is seen, which follows the cell at hand. @param fixed pixels of what stands still at the left */
export function useRecordWindow(rows: number, columns: readonly string[], fixed: number): RecordWindow {
  const table = useSession((session) => session.table);
  const widths = useTableLook((look) => look.widths);
  const { starts, total } = useMemo(() => {
    let at = 0;
    const places = columns.map((name) => {
      const start = at;
      at += widths[name] ?? USUAL_WIDTH;
      return start;
    });
    return { starts: places, total: at };
  }, [columns, widths]);
  const { scroller, top, left, width, height, tall, goTo, goLeft } = useTall(rows, ROW, HEAD);
  const seen = Math.max(0, Math.floor((height - HEAD) / ROW));
  const first = Math.max(0, Math.floor(top) - OVER);
  const last = Math.min(rows - 1, Math.ceil(top) + seen + OVER);
  const from = Math.max(
    0,
    starts.findLastIndex((start) => start <= left),
  );
  const beyond = starts.findIndex((start) => start >= left + width - fixed);
  const to = beyond < 0 ? columns.length - 1 : beyond;
  // The cell at hand is in sight whenever it changes.
  const column = table.column === null ? -1 : columns.indexOf(table.column);
  useEffect(() => {
    if (seen === 0) return;
    if (table.row < top) goTo(table.row);
    else if (table.row >= top + seen) goTo(table.row - seen + 1);
  }, [table.row, seen > 0, rows > 0]);
  useEffect(() => {
    if (column < 0 || width === 0) return;
    const [start, end] = [starts[column], starts[column] + (widths[columns[column]] ?? USUAL_WIDTH)];
    if (start < left) goLeft(start);
    else if (end > left + width - fixed) goLeft(end - width + fixed);
  }, [table.column, width > 0]);
  return { scroller, starts, total, top, left, width, height, tall, seen, first, last, from, to, column };
}
