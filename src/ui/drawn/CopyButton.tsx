'use client';

import { useRef, useState } from 'react';
import { copyTable } from '../frame/copy';

/** Copies the table that stands before it in the same section. */
export function CopyButton({ what }: { what: string }) {
  const button = useRef<HTMLButtonElement>(null);
  const [says, setSays] = useState<string | null>(null);
  const copy = async (): Promise<void> => {
    const table = button.current?.closest('section, .copyroom')?.querySelector('table');
    if (!table) return;
    setSays((await copyTable(table)) ? 'copied' : 'the browser refused');
    setTimeout(() => setSays(null), 2500);
  };
  return (
    <button
      ref={button}
      type="button"
      className="btn-bare small"
      onClick={() => void copy()}
      aria-label={`Copy ${what}`}
    >
      {says ?? 'Copy'}
    </button>
  );
}
