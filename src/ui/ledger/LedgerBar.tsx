'use client';

import type { RefObject } from 'react';
import { counted, whole } from '../../core/handoff/words';
import { useSession, useParts } from '../../store/session';
import { useInView } from '../sets/useInView';
import { ColumnMenu } from './ColumnMenu';
import { Narrowing } from './Narrowing';
import { SORTS, type SortBy } from './rows';
import { SORT_NAMES, sortBy } from './sorting';

/** Search, narrowing, order and columns, above the rows. @param listed variables in the list @param elsewhere those that are found and out of view @param leave back to the rows */
export function LedgerBar({
  field,
  listed,
  elsewhere,
  leave,
}: {
  field: RefObject<HTMLInputElement | null>;
  listed: number;
  elsewhere: number;
  leave: () => void;
}) {
  const { summaries, state, search, sort, beyond } = useParts(
    'summaries',
    'state',
    'search',
    'sort',
    'beyond',
  );
  const showAll = (): void => useSession.setState({ beyond: true });
  const { inside, outside } = useInView();
  const all = beyond ? summaries : inside;
  const base = outside > 0 && !beyond ? `${whole(all.length)} in view` : counted(all.length, 'variable');
  const done = all.filter(({ name }) => state.signedOff.has(name)).length;
  return (
    <div className="ledgerbar">
      <label className="visually-hidden" htmlFor="search">
        Search names, labels, questions, codes and notes
      </label>
      <input
        id="search"
        ref={field}
        type="search"
        className="form-control form-control-sm"
        placeholder="Search   /"
        title="Names, labels, questions, codes and notes"
        value={search}
        onChange={(event) =>
          useSession.setState({
            search: event.target.value,
            ...(event.target.value ? {} : { beyond: false }),
          })
        }
        onKeyDown={(event) => {
          if (event.key === 'Enter' && event.ctrlKey) {
            if (elsewhere > 0) showAll();
            event.preventDefault();
            return;
          }
          if (event.key !== 'ArrowDown' && event.key !== 'Enter' && event.key !== 'Escape') return;
          // The next key belongs to the rows, whichever way the field is left.
          if (event.key === 'Escape' && search) useSession.setState({ search: '', beyond: false });
          leave();
          event.preventDefault();
        }}
      />
      <Narrowing leave={leave} />
      <span role="status" className="soft">
        {listed < all.length
          ? `${whole(listed)} of ${base}`
          : outside > 0 && !beyond
            ? `${whole(listed)} of ${counted(summaries.length, 'variable')} in view`
            : base}
      </span>
      {elsewhere > 0 && (
        <button type="button" className="btn-bare" onClick={showAll}>
          {whole(elsewhere)} more out of view <kbd>Ctrl Enter</kbd>
        </button>
      )}
      {beyond && (
        <button type="button" className="btn-bare" onClick={() => useSession.setState({ beyond: false })}>
          Out of view shown too; only what is in view
        </button>
      )}
      <label className="sortpick">
        Order{' '}
        <select
          className="form-select form-select-sm"
          value={sort.by}
          onChange={(event) => sortBy(event.target.value as SortBy)}
        >
          {SORTS.map((by) => (
            <option key={by} value={by}>
              {SORT_NAMES[by]}
            </option>
          ))}
        </select>
      </label>
      <ColumnMenu />
      <progress
        className="signedoff"
        max={Math.max(1, all.length)}
        value={done}
        title={`${whole(done)} of ${base} signed off`}
        aria-label={`${whole(done)} of ${base} signed off`}
      />
    </div>
  );
}
