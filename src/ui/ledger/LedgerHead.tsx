'use client';

import { useSession } from '../../store/session';
import { COLUMN_NAMES, LEAST_WIDTH, widen, type ColumnKey } from './columns';
import { isSort, SORT_NAMES, sortBy } from './sorting';

/** The heads of the columns: they sort, and their edges widen. */
export function LedgerHead({ columns, template }: { columns: readonly ColumnKey[]; template: string }) {
  return (
    <div role="row" aria-rowindex={1} className="ledgerhead" style={{ gridTemplateColumns: template }}>
      <div role="columnheader" className="cell-choose">
        <span className="visually-hidden">Chosen</span>
      </div>
      {columns.map((key) => (
        <Head key={key} column={key} />
      ))}
    </div>
  );
}

function Head({ column: key }: { column: ColumnKey }) {
  const sort = useSession((session) => session.sort);
  const order = sort.by !== key ? 'none' : sort.down ? 'descending' : 'ascending';
  return (
    <div role="columnheader" aria-sort={isSort(key) ? order : undefined} className={`cell-${key}`}>
      {isSort(key) ? (
        <button
          type="button"
          tabIndex={-1}
          title={`Sort by ${SORT_NAMES[key]}`}
          aria-label={key === 'standing' ? COLUMN_NAMES[key] : undefined}
          onClick={() => sortBy(key)}
        >
          {key === 'standing' ? '●' : COLUMN_NAMES[key]}
          {sort.by === key && <span aria-hidden="true">{sort.down ? ' ↓' : ' ↑'}</span>}
        </button>
      ) : (
        COLUMN_NAMES[key]
      )}
      <span
        className="widener"
        aria-hidden="true"
        onPointerDown={(event) => {
          const { currentTarget: handle, clientX, pointerId } = event;
          const before = handle.parentElement?.getBoundingClientRect().width ?? LEAST_WIDTH;
          handle.setPointerCapture(pointerId);
          const move = (to: PointerEvent): void => widen(key, before + to.clientX - clientX);
          handle.addEventListener('pointermove', move);
          handle.addEventListener('pointerup', () => handle.removeEventListener('pointermove', move), {
            once: true,
          });
        }}
      />
    </div>
  );
}
