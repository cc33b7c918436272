'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import { useSession } from '../../store/session';
import { isNarrowed } from '../../store/narrow';
import { useInView } from '../sets/useInView';
import { MakeSet } from '../sets/MakeSet';
import { ChosenBar } from './ChosenBar';
import { orderOf, shares, templateOf, useColumns } from './columns';
import { LedgerBar } from './LedgerBar';
import { LedgerHead } from './LedgerHead';
import { LedgerRow } from './LedgerRow';
import { usePeek } from './Peek';
import { flagsByVariable, ledgerRows, progressOf, setsOf, wavesOf } from './rows';
import { useElsewhere } from './useElsewhere';
import { goTo, useLedgerKeys } from './useLedgerKeys';

const ROW = 30;
/** The head stays above the rows while they scroll. */
const HEAD = 28;
const NO_SETS: readonly string[] = [];
/** Always the same function, so that rows that did not change are not drawn again while scrolling. */
const toggle = (name: string): void =>
  useSession.setState((now) => {
    const next = new Set(now.chosen);
    if (!next.delete(name)) next.add(name);
    return { chosen: next };
  });

/** Every variable a row: thousands scroll, and all of it goes by keys. */
export function Ledger() {
  const {
    summaries,
    state,
    search,
    sort,
    flags,
    current,
    chosen,
    asking,
    wide,
    seen,
    narrow,
    opened,
    beyond,
    stale,
  } = useSession();
  const look = useColumns();
  const labelled = useMemo(() => summaries.some(({ label }) => label !== null), [summaries]);
  const columns = useMemo(() => orderOf(look, labelled), [look, labelled]);
  const shared = useMemo(() => shares(summaries), [summaries]);
  const template = useMemo(() => templateOf(look, shared, labelled), [look, shared, labelled]);
  const { peek, over, out } = usePeek();
  const numbers = useMemo(() => flagsByVariable(flags), [flags]);
  const rows = useMemo(
    () =>
      ledgerRows(summaries, state, {
        search,
        sort,
        narrow,
        beyond,
        seen,
        flags,
        numbers,
        waves: wavesOf(opened),
      }),
    [
      summaries,
      state,
      search,
      sort,
      numbers,
      beyond,
      narrow,
      flags,
      opened,
      narrow.progress || sort.by === 'standing' ? seen : null,
    ],
  );
  const { isInside } = useInView();
  const elsewhere = useElsewhere(rows.length, numbers);
  const sets = useMemo(() => setsOf(state), [state]);
  const groupOf = (index: number): string | null => sets.get(rows[index]?.name ?? '')?.[0] ?? null;
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
  const drawn = virtual.getVirtualItems();
  // What is seen is counted first, when other rows count.
  useEffect(() => {
    useSession.setState({ onScreen: drawn.map(({ index }) => rows[index].name) });
  }, [drawn.at(0)?.index, drawn.at(-1)?.index, rows]);
  const at = rows.findIndex(({ name }) => name === current);
  const isDrawn = (index: number): boolean => drawn.some((item) => item.index === index);

  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
    // Only when the variable at hand changes, not at each scroll.
  }, [at]);
  useEffect(() => {
    if (!wide) scroller.current?.focus();
  }, [wide]);

  useLedgerKeys({
    names: rows.map(({ name }) => name),
    at,
    screenful: () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 300) / ROW) - 2),
    grid: scroller,
    search: searchField,
    toggle,
  });
  const toRows = (): void => {
    if (at < 0)
      goTo(
        rows.map(({ name }) => name),
        0,
      );
    scroller.current?.focus();
  };

  return (
    <>
      <LedgerBar field={searchField} listed={rows.length} elsewhere={elsewhere} leave={toRows} />
      <ChosenBar />
      <div
        className="ledger"
        role="grid"
        aria-label="Variables"
        aria-rowcount={rows.length + 1}
        aria-multiselectable="true"
        tabIndex={0}
        ref={scroller}
        aria-activedescendant={isDrawn(at) ? `row-${rows[at].position}` : undefined}
        data-testid="ledger"
        onPointerMove={over}
        onPointerLeave={out}
      >
        <LedgerHead columns={columns} template={template} />
        <div className="ledgerbody" role="rowgroup" style={{ height: virtual.getTotalSize() }}>
          {drawn.map(({ index, start }) => (
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
              sets={sets.get(rows[index].name) ?? NO_SETS}
              out={!isInside(rows[index].name)}
              stale={stale.has(rows[index].name)}
              heads={sort.by === 'sets' && index > 0 && groupOf(index) !== groupOf(index - 1)}
              columns={columns}
              template={template}
              toggle={toggle}
            />
          ))}
        </div>
        {rows.length === 0 && <NoRows />}
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

/** Why the list is empty, and the way on. */
function NoRows() {
  const { search, narrow } = useSession();
  return (
    <p className="soft p-3" role="row">
      <span role="gridcell">
        {search
          ? `No variable in view has “${search}” in its name, label, question, codes or note. Press Esc in the search field to see all.`
          : isNarrowed(narrow)
            ? 'No variable is what the list is narrowed to. List all again with Narrow above.'
            : 'No variable is in view. Put a set in view, or all variables, with the scope line above.'}
      </span>
    </p>
  );
}
