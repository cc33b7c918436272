'use client';

import Form from 'react-bootstrap/Form';
import { counted } from '../../core/handoff/words';
import { FirstRows } from './FirstRows';
import { Guesses, type Change } from './Guesses';
import type { FoundData } from './useWaiting';

/** One data file before it is read: what it is taken for, why, and its first and last rows. */
export function FileCard({
  one,
  others,
  together,
  setTogether,
  change,
}: {
  one: FoundData;
  others: number;
  together: boolean;
  setTogether: (together: boolean) => void;
  change: Change;
}) {
  const { look } = one;
  return (
    <article className="filecard" aria-label={`How ${look.name} is read`}>
      <header>
        <strong className="code">{look.name}</strong>
        <span className="soft">
          {counted(look.names.length, 'column')}
          {look.all !== null && `, ${counted(look.all, 'row')}`}
        </span>
        {others > 0 && (
          <Form.Check
            type="checkbox"
            id={`together ${one.key}`}
            className="ms-auto"
            label={`What is changed here holds for the other ${others === 1 ? 'file' : `${others} files`} of this form too`}
            checked={together}
            onChange={(event) => setTogether(event.target.checked)}
          />
        )}
      </header>
      <Guesses look={look} change={change} />
      <FirstRows look={look} columns={one.cells.columns} />
    </article>
  );
}
