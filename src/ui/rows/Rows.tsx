'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import type { ListAsk } from '../../core/inspect/listing';
import { askCondition, changeTable, useSession, useParts } from '../../store/session';
import { listWhole } from '../../store/reading';
import { partsAtHand } from '../../store/sieve';
import { useAnswer } from '../asking/useAnswer';
import { Problem } from '../frame/Problem';
import { useInView } from '../sets/useInView';
import { CellLine } from './CellLine';
import { RecordTable, tableColumns, type TableHandle } from './RecordTable';
import { RowsBar } from './RowsBar';
import { RowsDialogs } from './RowsDialogs';
import { SievePanel } from './SievePanel';
import { useTableLook } from './tableLook';
import { columnsFound, useRowsDoings } from './useRowsDoings';

/** Single records as a table, and which of them count. */
export function Rows() {
  const { table, state, draft, opened, id, current, laid } = useParts(
    'table',
    'state',
    'draft',
    'opened',
    'id',
    'current',
    'laid',
  );
  const { inside } = useInView();
  const moved = useTableLook(({ moved: all }) => all[id ?? '']);
  const pinned = opened?.calledBy ?? null;
  const isPinned = inside.some(({ name, kind }) => name === pinned && kind === 'identifier');
  const columns = useMemo(
    () =>
      tableColumns(
        inside.map(({ name }) => name),
        isPinned ? pinned : null,
        moved,
      ),
    [inside, pinned, isPinned, moved],
  );
  const { parts, inForce } = partsAtHand({ ...useSession.getState(), draft, state });
  const ask: ListAsk = useMemo(
    () => ({
      which: table.which,
      parts: draft ? draft.parts : null,
      flag: table.flag,
      sort: table.sort,
      ...(table.whole ? { whole: table.whole.number } : {}),
    }),
    [table.which, table.flag, table.sort, table.whole, draft],
  );
  // All rows are looked for anew where another order, or another ruling, makes others of them.
  const isWhole = table.which === 'whole';
  useEffect(() => {
    if (isWhole) void listWhole();
  }, [isWhole, table.sort, laid]);
  const { value: rows } = useAnswer('listed', isWhole && table.whole === undefined ? null : [ask]);
  const [chosen, choose] = useState<readonly [number, number] | null>(null);
  const [said, say] = useState('');
  const handle = useRef<TableHandle>(null);
  const find = useRef<HTMLInputElement>(null);
  const column =
    table.column !== null && columns.includes(table.column) ? table.column : (columns[0] ?? null);
  useEffect(() => {
    if (table.column === null && current !== null && columns.includes(current))
      changeTable({ column: current });
    else if (column !== table.column) changeTable({ column });
    handle.current?.focus();
  }, []);
  // While rows are counted anew the number before stands in, so that no key is lost.
  const known = useRef(0);
  if (rows !== null) known.current = rows;
  const count = rows ?? known.current;
  const place = Math.max(0, Math.min(count - 1, table.row));
  useEffect(() => choose(null), [ask]);
  useEffect(() => say(''), [ask, place, chosen]);

  const { onKey, sortBy, next, asideOrBack } = useRowsDoings({
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
  });
  const done = (): void => {
    useSession.setState({ asking: null });
    // A dialog holds the focus until it is gone.
    requestAnimationFrame(() => handle.current?.focus());
  };
  const numbers = useMemo(() => new Map(parts.map(({ id: part }, i) => [part, i + 1])), [parts]);
  return (
    <div className="rows">
      <div className="rowsside" onKeyDown={onKey}>
        <Problem />
        <RowsBar
          ask={ask}
          rows={rows}
          columns={columnsFound(columns, pinned)}
          column={column}
          next={(back, search) => void next(back, search)}
          field={find}
          leave={() => handle.current?.focus()}
          inForce={inForce}
        />
        <RecordTable
          ask={ask}
          rows={count}
          columns={columns}
          pinned={isPinned ? pinned : null}
          chosen={chosen}
          choose={choose}
          sortBy={sortBy}
          numbers={numbers}
          handle={handle}
        />
        <CellLine
          ask={ask}
          place={place}
          rows={rows}
          column={column}
          chosen={chosen}
          aside={() => void asideOrBack()}
          said={said}
        />
      </div>
      <SievePanel ask={() => askCondition(column)} />
      <RowsDialogs ask={ask} place={place} column={column} done={done} />
    </div>
  );
}
