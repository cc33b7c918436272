'use client';

import type { Pattern } from '../../core/flags/patterns';
import { counted, whole } from '../../core/handoff/words';
import { useSession } from '../../store/session';
import { FlagCard } from './FlagCard';

/** Remarks stand apart: they ask for nothing. */
export function Remarks({ remarks }: { remarks: readonly Pattern[] }) {
  if (remarks.length === 0) return null;
  return (
    <details className="remarks">
      <summary>
        {counted(
          remarks.reduce((sum, pattern) => sum + pattern.flags.length, 0),
          'remark',
        )}
        , which ask for nothing
      </summary>
      {remarks.map((pattern) => (
        <div key={pattern.key} className="flagrow">
          <p className="mb-0">
            {pattern.flags.slice(0, 8).map(({ variables: [name] }) => (
              <button
                type="button"
                key={name}
                className="btn-bare code"
                onClick={() => useSession.setState({ station: 'inventory', current: name })}
              >
                {name}
              </button>
            ))}
            {pattern.flags.length > 8 && ` and ${whole(pattern.flags.length - 8)} more`}
          </p>
          <FlagCard flags={pattern.flags} says={pattern.says} />
        </div>
      ))}
    </details>
  );
}
