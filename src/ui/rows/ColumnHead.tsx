'use client';

import { useRef } from 'react';
import { useSession } from '../../store/session';
import { LEAST_WIDTH, widen } from './tableLook';

/** Name and label of a column; a click sorts by it, its edge is drawn to another width. */
export function ColumnHead({
  name,
  shown,
  label,
  width,
  sortBy,
  resizable = false,
}: {
  name: string;
  shown: string;
  label: string | null;
  width: number;
  sortBy: (name: string, too: boolean) => void;
  resizable?: boolean;
}) {
  const sort = useSession((session) => session.table.sort);
  const at = sort.findIndex(({ variable }) => variable === name);
  const dragged = useRef<{ x: number; width: number } | null>(null);
  const by = at < 0 ? null : sort[at];
  return (
    <div
      role="columnheader"
      className="columnhead"
      style={{ width }}
      aria-sort={by ? (by.down ? 'descending' : 'ascending') : undefined}
      title={`${name}${label ? `: ${label}` : ''}\nClick sorts: up, down, not. With Shift within what it is sorted by already.`}
    >
      <button type="button" tabIndex={-1} onClick={(event) => sortBy(name, event.shiftKey)}>
        <span className="code">
          {shown}
          {by && (
            <span aria-hidden="true">
              {' '}
              {by.down ? '↓' : '↑'}
              {sort.length > 1 && at + 1}
            </span>
          )}
        </span>
        <span className="soft">{label ?? ' '}</span>
      </button>
      {resizable && (
        <span
          className="grip"
          aria-hidden="true"
          onPointerDown={(event) => {
            dragged.current = { x: event.clientX, width };
            event.currentTarget.setPointerCapture(event.pointerId);
          }}
          onPointerMove={(event) => {
            if (dragged.current)
              widen(name, Math.max(LEAST_WIDTH, dragged.current.width + event.clientX - dragged.current.x));
          }}
          onPointerUp={() => {
            dragged.current = null;
          }}
        />
      )}
    </div>
  );
}
