'use client';

import type { ListAsk } from '../../core/inspect/listing';
import { whole } from '../../core/handoff/words';
import { useSession } from '../../store/session';
import { useAnswer } from '../asking/useAnswer';

/** Where the cell at hand stands, in its file too, and what it is. */
export function CellLine({
  ask,
  place,
  rows,
  column,
  chosen,
  said,
  aside,
}: {
  ask: ListAsk;
  place: number;
  rows: number | null;
  column: string | null;
  chosen: readonly [number, number] | null;
  /** What came of what was done last. */
  said: string;
  aside: () => void;
}) {
  const label = useSession(({ summaries }) => summaries.find(({ name }) => name === column)?.label ?? null);
  const { value } = useAnswer('listedRows', rows && column ? [ask, place, 1, [column]] : null);
  const [row] = value ?? [];
  const [cell] = row?.cells ?? [];
  return (
    <p className="cellline">
      {row && cell ? (
        <>
          <span>
            Row <strong>{whole(row.place)}</strong>
            {row.line === null ? `, ${row.file}` : `, line ${whole(row.line)} of ${row.file}`}
            {row.aside && <strong> set aside</strong>}
            {!row.held && <span className="soft">, not held: to look at only</span>}
          </span>
          <span className="what">
            <span className="code">{column}</span> <span className="soft">{label}</span>:{' '}
            <span className="code">{cell.code ?? cell.raw}</span> {cell.label}
            {cell.state !== 'valid' && (
              <span className="soft"> {cell.state === 'notAsked' ? 'not asked' : cell.state}</span>
            )}
            {cell.corrected && <span className="soft"> received as “{cell.raw}”</span>}
          </span>
          {said && <span role="status">{said}</span>}
          {chosen && (
            <span>
              {whole(chosen[1] - chosen[0] + 1)} chosen: <kbd>y</kbd> copies,{' '}
              <button type="button" className="btn-bare" onClick={aside}>
                set aside or back <kbd>b</kbd>
              </button>
            </span>
          )}
        </>
      ) : (
        <span className="soft">{rows === 0 ? 'No row is listed.' : 'Reading…'}</span>
      )}
    </p>
  );
}
