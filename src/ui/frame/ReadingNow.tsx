'use client';

import { useEffect } from 'react';
import Button from 'react-bootstrap/Button';
import { whole } from '../../core/handoff/words';
import type { Progress } from '../../engine/protocol';
import { stopReading } from '../../store/reading';

/** Long work: what it is, how far it is, and the way to stop it. */
export function ReadingNow({ now }: { now: Progress }) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') stopReading();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  const percent = Math.min(100, Math.round((100 * now.done) / Math.max(1, now.whole)));
  return (
    <div className="sheet">
      <h2>{now.says}</h2>
      <p className="soft" role="status">
        {percent} of 100 parts done{now.rows > 0 ? `, ${whole(now.rows)} rows so far` : ''}
      </p>
      <progress role="progressbar" className="howfar" max={100} value={percent} aria-label={now.says} />
      <Button variant="quiet" className="mt-3" onClick={stopReading}>
        Stop <kbd>Esc</kbd>
      </Button>
    </div>
  );
}
