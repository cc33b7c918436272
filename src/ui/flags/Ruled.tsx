'use client';

import type { Entry } from '../../core/log/entries';
import { entryText } from '../../core/log/entry-text';
import { undo } from '../../store/decisions';

/** What was ruled on, each to be taken back. */
export function Ruled({ rulings }: { rulings: readonly Entry[] }) {
  if (rulings.length === 0) return null;
  return (
    <>
      <h3>Ruled on</h3>
      <ul className="ruled">
        {rulings.map((entry) => (
          <li key={entry.id}>
            {entryText(entry)}
            {entry.why && <q className="ms-1">{entry.why}</q>}{' '}
            <span className="soft">{entry.at.slice(0, 16).replace('T', ' ')}</span>{' '}
            <button
              type="button"
              className="btn-bare"
              onClick={() => void undo(entry.id)}
              aria-label={`Undo: ${entryText(entry)}`}
            >
              Undo
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
