'use client';

import { useMemo } from 'react';
import { useSession } from '../../store/session';
import { ColumnHead } from './ColumnHead';
import { FAILS, PINNED } from './RecordRow';
import { HEAD } from './useRecordWindow';

/** Names and labels above the rows; what tells a row apart stands still, the others are scrolled with their columns. */
export function TableHead({
  columns,
  left,
  fixed,
  margin,
  pinned,
  showsFails,
  nameOf,
  sortBy,
}: {
  columns: readonly { name: string; left: number; width: number }[];
  left: number;
  fixed: number;
  margin: number;
  pinned: string | null;
  showsFails: boolean;
  nameOf: (name: string) => string;
  sortBy: (name: string, too: boolean) => void;
}) {
  const summaries = useSession((session) => session.summaries);
  const about = useMemo(() => new Map(summaries.map((summary) => [summary.name, summary])), [summaries]);
  return (
    <div className="recordhead" role="row" style={{ height: HEAD }}>
      <div className="fixedcells" style={{ width: fixed }}>
        <div role="columnheader" className="margin" style={{ width: margin }}>
          Row <span className="soft">line</span>
        </div>
        {showsFails && (
          <div
            role="columnheader"
            style={{ width: FAILS }}
            title="Conditions of the sieve that drop the row, by their numbers"
          >
            Fails
          </div>
        )}
        {pinned !== null && (
          <ColumnHead
            name={pinned}
            shown={nameOf(pinned)}
            label={about.get(pinned)?.label ?? null}
            width={PINNED}
            sortBy={sortBy}
          />
        )}
      </div>
      {columns.map(({ name, left: start, width }) => (
        <div key={name} className="movable" style={{ transform: `translateX(${start - left}px)` }}>
          <ColumnHead
            name={name}
            shown={nameOf(name)}
            label={about.get(name)?.label ?? null}
            width={width}
            sortBy={sortBy}
            resizable
          />
        </div>
      ))}
    </div>
  );
}
