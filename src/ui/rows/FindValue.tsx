'use client';

import { useState, type RefObject } from 'react';
import { counted } from '../../core/handoff/words';
import type { ListAsk } from '../../core/inspect/listing';
import { changeTable, useSession, type Search } from '../../store/session';
import { useAnswer } from '../asking/useAnswer';

export interface Finding {
  ask: ListAsk;
  /** Variables that are looked in, and the one at hand. */
  columns: string[];
  column: string | null;
  /** Goes to the next, or to the one before. @param search what is looked for, where that was typed just now */
  next: (back: boolean, search?: Search) => void;
  field: RefObject<HTMLInputElement | null>;
  leave: () => void;
}

/** Finds a value in one column or in all: how many rows hold it, the next, the one before. */
export function FindValue({ ask, columns, column, next, field, leave }: Finding) {
  const found = useSession(({ table }) => table.search);
  const [typed, setTyped] = useState(found?.text ?? '');
  const names = found?.everywhere || column === null ? columns : [column];
  const isWhole = ask.which === 'whole';
  /** In all rows it is looked for before it is said where it is. */
  const look = (search: Search): void => (isWhole ? next(false, search) : changeTable({ search }));
  const { value: number } = useAnswer('found', found ? [ask, found.text, names] : null);
  return (
    <form
      className="find"
      onSubmit={(event) => {
        event.preventDefault();
        const again = found?.text === typed ? found : null;
        next(false, typed ? (again ?? { text: typed, everywhere: found?.everywhere ?? true }) : undefined);
      }}
    >
      <label className="visually-hidden" htmlFor="find-value">
        Find a value
      </label>
      <input
        id="find-value"
        ref={field}
        type="search"
        className="form-control form-control-sm"
        placeholder="Find a value   /"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          if (!event.target.value) changeTable({ search: null });
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape') {
            if (typed) {
              setTyped('');
              changeTable({ search: null });
            }
            leave();
            event.preventDefault();
          } else if (event.key === 'ArrowDown') {
            leave();
            event.preventDefault();
          }
        }}
      />
      {found && (
        <>
          <span role="status">
            {number !== null
              ? `${counted(number, 'row')} found`
              : isWhole
                ? 'not looked for under this'
                : 'looking…'}
          </span>
          <button
            type="button"
            className="btn btn-sm btn-quiet"
            onClick={() => next(false)}
            disabled={!number && !(isWhole && number === null)}
          >
            Next <kbd>n</kbd>
          </button>
          <button
            type="button"
            className="btn btn-sm btn-quiet"
            onClick={() => next(true)}
            disabled={!number}
          >
            Before <kbd>N</kbd>
          </button>
          <label className="ms-1">
            <input
              type="checkbox"
              checked={!found.everywhere}
              onChange={(event) => look({ ...found, everywhere: !event.target.checked })}
            />{' '}
            only in <span className="code">{column}</span>
          </label>
        </>
      )}
    </form>
  );
}
