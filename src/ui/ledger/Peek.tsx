'use client';

import { useState } from 'react';
import { percent } from '../../core/handoff/words';
import { useAnswer } from '../asking/useAnswer';

interface Peeked {
  name: string;
  top: number;
  left: number;
}
const AFTER = 350;

/** The most frequent codes of the row under the pointer, with their shares of all rows. */
export function usePeek(): {
  peek: React.ReactNode;
  over: (event: React.PointerEvent) => void;
  out: () => void;
} {
  const [wanted, setWanted] = useState<Peeked | null>(null);
  const { value } = useAnswer('peek', wanted && [wanted.name], AFTER);
  const codes = value ?? [];
  const at = codes.length ? wanted : null;
  const over = (event: React.PointerEvent): void => {
    const row = (event.target as HTMLElement).closest<HTMLElement>('.ledgerrow');
    const name = row?.dataset.name;
    if (!row || !name) setWanted(null);
    else if (name !== wanted?.name) {
      const { bottom } = row.getBoundingClientRect();
      setWanted({ name, top: bottom, left: event.clientX });
    }
  };
  const peek = at && (
    <div
      className="peek"
      role="tooltip"
      style={{
        top: Math.min(at.top + 4, window.innerHeight - 30 - 20 * codes.length),
        left: Math.min(at.left, window.innerWidth - 320),
      }}
    >
      <strong className="code">{at.name}</strong>
      {codes.map(({ code, label, share, missing }) => (
        <div key={code} className={missing ? 'soft' : undefined}>
          <span>
            <span className="code">{code}</span> {label}
            {missing && ' (missing)'}
          </span>
          <span className="n">{percent(share)}</span>
        </div>
      ))}
    </div>
  );
  return { peek, over, out: () => setWanted(null) };
}
