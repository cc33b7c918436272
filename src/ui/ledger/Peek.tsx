'use client';

import { useEffect, useState } from 'react';
import { percent } from '../../core/handoff/words';
import { engineOf } from '../../engine/client';

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
  const [at, setAt] = useState<Peeked | null>(null);
  const [codes, setCodes] = useState<
    { code: string; label: string | null; share: number; missing: boolean }[]
  >([]);
  const [wanted, setWanted] = useState<Peeked | null>(null);
  useEffect(() => {
    if (!wanted) {
      setAt(null);
      return;
    }
    const timer = setTimeout(() => {
      void engineOf()
        .peek(wanted.name)
        .then((found) => {
          setCodes(found);
          setAt(found.length ? wanted : null);
        });
    }, AFTER);
    return () => clearTimeout(timer);
  }, [wanted?.name]);
  const over = (event: React.PointerEvent): void => {
    const row = (event.target as HTMLElement).closest<HTMLElement>('.ledgerrow');
    const name = row?.dataset.name;
    if (!row || !name) setWanted(null);
    else if (name !== wanted?.name) {
      const { bottom } = row.getBoundingClientRect();
      setWanted({ name, top: bottom, left: event.clientX });
    }
  };
  const peek = at && at.name === wanted?.name && (
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
