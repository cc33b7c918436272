'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import { flushSync } from 'react-dom';
import { counted, whole } from '../../core/handoff/words';
import { confirmKinds, signOff } from '../../store/decisions';
import { useSession } from '../../store/session';
import { isNarrowed } from '../../store/narrow';
import { isTyping } from '../frame/keys';
import { MakeSet } from '../sets/MakeSet';
import { ColumnMenu } from './ColumnMenu';
import {
  COLUMN_NAMES,
  LEAST_WIDTH,
  orderOf,
  shares,
  templateOf,
  useColumns,
  widen,
  type ColumnKey,
} from './columns';
import { LedgerRow } from './LedgerRow';
import { Narrowing } from './Narrowing';
import { usePeek } from './Peek';
import { flagsByVariable, ledgerRows, progressOf, SORTS, wavesOf, type SortBy } from './rows';

const ROW = 30;
/** The head stays above the rows while they scroll. */
const HEAD = 28;
const LONG: Record<SortBy, string> = {
  position: 'place in the file',
  name: 'name',
  label: 'label',
  kind: 'kind',
  distinct: 'number of distinct valid values',
  valid: 'share of valid rows',
  flags: 'flags',
  standing: 'progress',
};
const isSort = (key: string): key is SortBy => (SORTS as readonly string[]).includes(key);

/** Always the same function, so that rows that did not change are not drawn again while scrolling. */
const toggle = (name: string): void =>
  useSession.setState((now) => {
    const next = new Set(now.chosen);
    if (!next.delete(name)) next.add(name);
    return { chosen: next };
  });

/** Every variable a row: thousands scroll, and all of it goes by keys. */
export function Ledger() {
  const { summaries, state, search, sort, flags, current, chosen, asking, wide, seen, narrow, opened } =
    useSession();
  const look = useColumns();
  const labelled = useMemo(() => summaries.some(({ label }) => label !== null), [summaries]);
  const columns = useMemo(() => orderOf(look, labelled), [look, labelled]);
  const shared = useMemo(() => shares(summaries), [summaries]);
  const template = useMemo(() => templateOf(look, shared, labelled), [look, shared, labelled]);
  const { peek, over, out } = usePeek();
  const numbers = useMemo(() => flagsByVariable(flags), [flags]);
  const rows = useMemo(
    () =>
      ledgerRows(summaries, state, { search, sort, narrow, seen, flags, numbers, waves: wavesOf(opened) }),
    [
      summaries,
      state,
      search,
      sort,
      numbers,
      narrow,
      flags,
      opened,
      narrow.progress || sort.by === 'standing' ? seen : null,
    ],
  );
  const done = summaries.filter(({ name }) => state.signedOff.has(name)).length;
  const scroller = useRef<HTMLDivElement>(null);
  const searchField = useRef<HTMLInputElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
    scrollMargin: HEAD,
    scrollPaddingStart: HEAD,
  });
  const at = rows.findIndex(({ name }) => name === current);
  const isDrawn = (index: number): boolean => virtual.getVirtualItems().some((item) => item.index === index);

  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
    // Only when the variable at hand changes, not at each scroll.
  }, [at]);
  useEffect(() => {
    if (!wide) scroller.current?.focus();
  }, [wide]);

  const go = (to: number): void => {
    const row = rows[Math.max(0, Math.min(rows.length - 1, to))];
    if (row) useSession.setState({ current: row.name });
  };
  const chooseAll = (): void => {
    const every = rows.every(({ name }) => chosen.has(name));
    useSession.setState({ chosen: new Set(every ? [] : rows.map(({ name }) => name)) });
  };

  const onKey = (event: React.KeyboardEvent): void => {
    if (isTyping(event)) return;
    const screenful = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 300) / ROW) - 2);
    const moves: Record<string, number> = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      PageDown: at + screenful,
      PageUp: at - screenful,
      Home: 0,
      End: rows.length - 1,
    };
    if (event.key in moves) {
      if (event.shiftKey && current && event.key.startsWith('Arrow'))
        useSession.setState((now) => ({
          chosen: new Set([...now.chosen, current, rows[moves[event.key]]?.name ?? current]),
        }));
      go(moves[event.key]);
    } else if (event.key === ' ' && current) toggle(current);
    else if (event.key === 'Enter') document.getElementById('profile')?.focus();
    else return;
    event.preventDefault();
  };
  // These act anywhere on the station, so that the profile can be read and ruled on without going back.
  useEffect(() => {
    const onKeyAnywhere = (event: KeyboardEvent): void => {
      if (isTyping(event)) return;
      if (event.defaultPrevented) return;
      if ((event.key === 'ArrowLeft' || event.key === 'ArrowRight') && !event.shiftKey)
        go(at + (event.key === 'ArrowLeft' ? -1 : 1));
      else if (event.key === 't' && chosen.size > 1) useSession.setState({ asking: 'together' });
      else if (event.key === 's' && chosen.size) useSession.setState({ asking: 'set' });
      else if (event.key === 'a') chooseAll();
      else if (event.key === 'f') document.getElementById('narrow')?.click();
      else if (event.key === '/') {
        // What is typed next must land in the field, so it gets the focus at once, and is only then shown if it was hidden.
        if (useSession.getState().wide) flushSync(() => useSession.setState({ wide: false }));
        searchField.current?.select();
      } else return;
      event.preventDefault();
    };
    document.addEventListener('keydown', onKeyAnywhere);
    return () => document.removeEventListener('keydown', onKeyAnywhere);
  });

  const sortBy = (by: SortBy): void =>
    useSession.setState({
      sort: { by, down: sort.by === by ? !sort.down : by === 'flags' || by === 'distinct' },
    });
  const aria = (by: SortBy): 'ascending' | 'descending' | 'none' =>
    sort.by === by ? (sort.down ? 'descending' : 'ascending') : 'none';
  const head = (key: ColumnKey) => (
    <div
      role="columnheader"
      aria-sort={isSort(key) ? aria(key) : undefined}
      key={key}
      className={`cell-${key}`}
    >
      {isSort(key) ? (
        <button
          type="button"
          tabIndex={-1}
          title={`Sort by ${LONG[key]}`}
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

  return (
    <>
      <div className="ledgerbar">
        <label className="visually-hidden" htmlFor="search">
          Search names, labels, questions, codes and notes
        </label>
        <input
          id="search"
          ref={searchField}
          type="search"
          className="form-control form-control-sm"
          placeholder="Search names, labels, codes   /"
          value={search}
          onChange={(event) => useSession.setState({ search: event.target.value })}
          onKeyDown={(event) => {
            if (event.key !== 'ArrowDown' && event.key !== 'Enter' && event.key !== 'Escape') return;
            // The next key belongs to the rows, whichever way the field is left.
            if (event.key === 'Escape' && search) useSession.setState({ search: '' });
            else if (at < 0) go(0);
            scroller.current?.focus();
            event.preventDefault();
          }}
        />
        <Narrowing />
        <span role="status" className="soft">
          {rows.length === summaries.length
            ? counted(rows.length, 'variable')
            : `${whole(rows.length)} of ${counted(summaries.length, 'variable')}`}
        </span>
        <label className="sortpick">
          Order{' '}
          <select
            className="form-select form-select-sm"
            value={sort.by}
            onChange={(event) => sortBy(event.target.value as SortBy)}
          >
            {SORTS.map((by) => (
              <option key={by} value={by}>
                {LONG[by]}
              </option>
            ))}
          </select>
        </label>
        <ColumnMenu />
        <progress
          className="signedoff"
          max={Math.max(1, summaries.length)}
          value={done}
          title={`${whole(done)} of ${counted(summaries.length, 'variable')} signed off`}
          aria-label={`${whole(done)} of ${counted(summaries.length, 'variable')} signed off`}
        />
      </div>
      {chosen.size > 0 && (
        <div className="chosenbar" role="status">
          <strong>{whole(chosen.size)} chosen</strong>
          <button
            type="button"
            className="btn btn-quiet btn-sm"
            onClick={() => useSession.setState({ asking: 'set' })}
          >
            Make a set… <kbd>s</kbd>
          </button>
          <button type="button" className="btn btn-quiet btn-sm" onClick={confirmKinds}>
            Confirm their kinds <kbd>c</kbd>
          </button>
          <button
            type="button"
            className="btn btn-quiet btn-sm"
            onClick={() => useSession.setState({ asking: 'kind' })}
          >
            Say their kind… <kbd>k</kbd>
          </button>
          <button
            type="button"
            className="btn btn-quiet btn-sm"
            onClick={() => useSession.setState({ asking: 'codes' })}
          >
            Label their codes… <kbd>l</kbd>
          </button>
          <button type="button" className="btn btn-quiet btn-sm" onClick={signOff}>
            Sign off <kbd>x</kbd>
          </button>
          {chosen.size > 1 && (
            <button
              type="button"
              className="btn btn-quiet btn-sm"
              onClick={() => useSession.setState({ asking: 'together' })}
            >
              Side by side… <kbd>t</kbd>
            </button>
          )}
          <button
            type="button"
            className="btn-bare"
            onClick={() => useSession.setState({ chosen: new Set() })}
          >
            Choose none
          </button>
        </div>
      )}
      <div
        className="ledger"
        role="grid"
        aria-label="Variables"
        aria-rowcount={rows.length + 1}
        aria-multiselectable="true"
        tabIndex={0}
        ref={scroller}
        aria-activedescendant={isDrawn(at) ? `row-${rows[at].position}` : undefined}
        onKeyDown={onKey}
        data-testid="ledger"
        onPointerMove={over}
        onPointerLeave={out}
      >
        <div role="row" aria-rowindex={1} className="ledgerhead" style={{ gridTemplateColumns: template }}>
          <div role="columnheader" className="cell-choose">
            <span className="visually-hidden">Chosen</span>
          </div>
          {columns.map(head)}
        </div>
        <div className="ledgerbody" role="rowgroup" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => (
            <LedgerRow
              key={rows[index].name}
              summary={rows[index]}
              called={state.called.get(rows[index].name)?.name ?? null}
              noted={state.notes.has(rows[index].name)}
              progress={progressOf(rows[index].name, state, seen)}
              index={index}
              top={start - HEAD}
              current={index === at}
              chosen={chosen.has(rows[index].name)}
              flags={numbers.get(rows[index].name) ?? 0}
              columns={columns}
              template={template}
              toggle={toggle}
            />
          ))}
        </div>
        {rows.length === 0 && (
          <p className="soft p-3" role="row">
            <span role="gridcell">
              {search
                ? `No variable in view has “${search}” in its name, label, question, codes or note. Press Esc in the search field to see all.`
                : isNarrowed(narrow)
                  ? 'No variable is what the list is narrowed to. List all again with Narrow above.'
                  : 'No variable is in view. Put a set in view, or all variables, with the scope line above.'}
            </span>
          </p>
        )}
      </div>
      {peek}
      <MakeSet
        shown={asking === 'set'}
        names={[...chosen]}
        close={() => {
          useSession.setState({ asking: null });
          scroller.current?.focus();
        }}
      />
    </>
  );
}
