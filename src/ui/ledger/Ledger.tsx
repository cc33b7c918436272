'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useParts, useSession } from '../../store/session';
import { isNarrowed } from '../../store/narrow';
import { MakeSet } from '../sets/MakeSet';
import { ChosenBar } from './ChosenBar';
import { orderOf, roomForDistinct, shares, templateOf, useColumns } from './columns';
import { LedgerBar } from './LedgerBar';
import { LedgerHead } from './LedgerHead';
import { LedgerRows, ROW, toggleChosen } from './LedgerRows';
import { usePeek } from './Peek';
import { flagsByVariable, ledgerRows, wavesOf } from './rows';
import { useElsewhere } from './useElsewhere';
import { goTo, useLedgerKeys } from './useLedgerKeys';

/** Every variable a row: thousands scroll, and all of it goes by keys. */
export function Ledger() {
  const { summaries, state, search, sort, flags, current, seen, narrow, opened, beyond, wide } = useParts(
    'summaries',
    'state',
    'search',
    'sort',
    'flags',
    'current',
    'seen',
    'narrow',
    'opened',
    'beyond',
    'wide',
  );
  const look = useColumns();
  const labelled = useMemo(() => summaries.some(({ label }) => label !== null), [summaries]);
  const columns = useMemo(() => orderOf(look, labelled), [look, labelled]);
  const shared = useMemo(() => ({ ...shares(summaries), ...roomForDistinct(summaries) }), [summaries]);
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
  const names = useMemo(() => rows.map(({ name }) => name), [rows]);
  const elsewhere = useElsewhere(rows.length, numbers);
  const scroller = useRef<HTMLDivElement | null>(null);
  // The rows measure what they scroll in as soon as it is there.
  const [grid, setGrid] = useState<HTMLDivElement | null>(null);
  const attach = useCallback((element: HTMLDivElement | null) => {
    scroller.current = element;
    setGrid(element);
  }, []);
  const searchField = useRef<HTMLInputElement>(null);
  const at = useMemo(() => (current === null ? -1 : names.indexOf(current)), [names, current]);
  useEffect(() => {
    if (!wide) scroller.current?.focus();
  }, [wide]);

  useLedgerKeys({
    names,
    at,
    screenful: () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 300) / ROW) - 2),
    grid: scroller,
    search: searchField,
    toggle: toggleChosen,
  });
  const toRows = (): void => {
    if (at < 0) goTo(names, 0);
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
        ref={attach}
        data-testid="ledger"
        onPointerMove={over}
        onPointerLeave={out}
      >
        <LedgerHead columns={columns} template={template} />
        <LedgerRows rows={rows} at={at} numbers={numbers} columns={columns} template={template} grid={grid} />
        {rows.length === 0 && <NoRows />}
      </div>
      {peek}
      <NewSet
        close={() => {
          useSession.setState({ asking: null });
          scroller.current?.focus();
        }}
      />
    </>
  );
}

/** The dialog that makes a set of what is chosen. */
function NewSet({ close }: { close: () => void }) {
  const shown = useSession((now) => now.asking === 'set');
  const chosen = useSession((now) => now.chosen);
  return <MakeSet shown={shown} names={[...chosen]} close={close} />;
}

/** Why the list is empty, and the way on. */
function NoRows() {
  const { search, narrow } = useParts('search', 'narrow');
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
