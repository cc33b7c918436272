'use client';

import type { Kind } from '../../core/extract/words';
import type { InspectedVariable } from '../../core/inspect/schema';
import { decide } from '../../store/decisions';
import { KindMark } from '../ledger/Marks';

/** The kind, presumed with its reasons or confirmed. */
export function KindBox({ variable: v, presumed }: { variable: InspectedVariable; presumed: Kind }) {
  return (
    <section className="kindbox" aria-label="Kind">
      <p className="mb-1">
        <KindMark kind={v.kind} confirmed={v.confirmed} />{' '}
        <span className="soft">
          {v.storage}, {v.role}
        </span>
        {!v.confirmed && (
          <>
            {' '}
            <button
              type="button"
              className="btn btn-quiet btn-sm ms-2"
              onClick={() =>
                void decide({ type: 'confirm-kind', kinds: [{ variable: v.name, kind: v.kind }] })
              }
            >
              Confirm <kbd>c</kbd>
            </button>
          </>
        )}
      </p>
      {v.confirmed ? (
        <p className="soft mb-0">
          Confirmed by you. The program presumed {presumed}: {v.because.slice(1).join('; ')}.
        </p>
      ) : (
        <p className="soft mb-0">
          Presumed, {Math.round(v.confidence * 100)} of 100 sure: {v.because.join('; ')}. Press <kbd>k</kbd>{' '}
          to say another.
        </p>
      )}
    </section>
  );
}
