'use client';

import { counted, whole } from '../../core/handoff/words';
import type { Profile } from '../../core/inspect/profile';
import { showSkip } from '../../store/cross';
import { useSession } from '../../store/session';
import { acceptUniverse } from '../rulings/answers';

/** Who was asked, by the blanks or as was accepted; with the rows that contradict. */
export function AskedOf({
  name,
  asked: { says, notAsked, breaches, breached, accepted, flag },
}: {
  name: string;
  asked: NonNullable<Profile['asked']>;
}) {
  return (
    <section className="askedof" aria-label="Who was asked">
      <p className="mb-1">
        {accepted ? 'Taken for ' : 'By its blanks '}
        <strong>{says}</strong>: {counted(notAsked, 'row')} not asked{' '}
        <button type="button" className="btn btn-quiet btn-sm" onClick={() => void showSkip(name)}>
          Does the skip hold? <kbd>p</kbd>
        </button>
        {!accepted && flag && (
          <>
            {' '}
            <button
              type="button"
              className="btn btn-quiet btn-sm ms-1"
              onClick={() => void acceptUniverse([flag])}
            >
              Take these blanks for not asked
            </button>
          </>
        )}
      </p>
      {breached > 0 && (
        <p className="soft mb-0">
          {counted(breached, 'row')} {breached === 1 ? 'holds' : 'hold'} an answer all the same:{' '}
          {breaches.map((row) => (
            <button
              type="button"
              key={row}
              className="btn-bare"
              onClick={() => useSession.setState({ record: row })}
              aria-label={`Record card of row ${whole(row + 1)}`}
            >
              {whole(row + 1)}
            </button>
          ))}
          {breached > breaches.length && ` and ${whole(breached - breaches.length)} more`}
        </p>
      )}
    </section>
  );
}
