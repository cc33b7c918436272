'use client';

import { useState, type RefObject } from 'react';
import { counted } from '../../core/handoff/words';
import type { ListAsk } from '../../core/inspect/listing';
import { useAnswer } from '../asking/useAnswer';

export interface Search {
  text: string;
  /** In all variables, or only in the one at hand. */
  everywhere: boolean;
}

export interface Finding {
  ask: ListAsk;
  /** Variables that are looked in, and the one at hand. */
  columns: string[];
  column: string | null;
  /** What is looked for, in one variable or in all. */
  found: Search | null;
  setFound: (found: Search | null) => void;
  /** Goes to the next, or to the one before. @param search what is looked for, where that was typed just now */
  next: (back: boolean, search?: Search) => void;
  field: RefObject<HTMLInputElement | null>;
  leave: () => void;
}

/** Finds a value in one column or in all: how many rows hold it, the next, the one before. */
export function FindValue({ ask, columns, column, found, setFound, next, field, leave }: Finding) {
  const [typed, setTyped] = useState('');
  const names = found?.everywhere || column === null ? columns : [column];
  const { value: number } = useAnswer('found', found ? [ask, found.text, names] : null);
  return (
    <form
      className="find"
      onSubmit={(event) => {
        event.preventDefault();
        const search = typed ? { text: typed, everywhere: found?.everywhere ?? true } : null;
        if (search && found?.text !== typed) setFound(search);
        next(false, search ?? undefined);
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
          if (!event.target.value) setFound(null);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape') {
            if (typed) {
              setTyped('');
              setFound(null);
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
          <span role="status">{number === null ? 'looking…' : `${counted(number, 'row')} found`}</span>
          <button
            type="button"
            className="btn btn-sm btn-quiet"
            onClick={() => next(false)}
            disabled={!number}
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
              onChange={(event) => setFound({ ...found, everywhere: !event.target.checked })}
            />{' '}
            only in <span className="code">{column}</span>
          </label>
        </>
      )}
    </form>
  );
}
