'use client';

import type { ReactNode } from 'react';

/** A small button of the quiet sort, with the key that does the same, where there is one. */
export function Quiet({
  does,
  shownKey,
  pressed,
  disabled,
  more = '',
  children,
}: {
  does: () => void;
  /** The key as it is shown, or none. */
  shownKey?: string | false;
  /** Of a button that stays in: whether it is. */
  pressed?: boolean;
  disabled?: boolean;
  /** More classes. */
  more?: string;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      className={`btn btn-sm ${pressed && shownKey ? 'btn-primary' : 'btn-quiet'} ${more}`.trim()}
      aria-pressed={pressed}
      disabled={disabled}
      onClick={does}
    >
      {children}
      {shownKey && (
        <>
          {' '}
          <kbd>{shownKey}</kbd>
        </>
      )}
    </button>
  );
}
