'use client';

import { useEffect, useState, type ReactNode } from 'react';
import Form from 'react-bootstrap/Form';

/** One of several to pick. */
export interface Pickable {
  key: string;
  shown: ReactNode;
}

/** A field with what fits what is typed below it: arrows go through it, Enter and a click take one. */
export function PickList({
  id,
  label,
  listLabel,
  placeholder,
  typed,
  setTyped,
  choices,
  pick,
  onKeyDown,
}: {
  id: string;
  label: string;
  listLabel: string;
  placeholder?: string;
  typed: string;
  setTyped: (typed: string) => void;
  choices: readonly Pickable[];
  pick: (place: number) => void;
  /** Keys besides those of the list. @returns whether the key was meant */
  onKeyDown?: (event: React.KeyboardEvent) => boolean;
}) {
  const [at, setAt] = useState(0);
  useEffect(() => setAt(0), [typed]);
  const here = Math.min(at, choices.length - 1);
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        if (here >= 0) pick(here);
      }}
    >
      <Form.Control
        autoFocus
        id={id}
        role="combobox"
        aria-expanded="true"
        aria-controls={`${id}-list`}
        aria-activedescendant={here >= 0 ? `${id}-${here}` : undefined}
        aria-label={label}
        placeholder={placeholder}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (onKeyDown?.(event)) {
            event.preventDefault();
            return;
          }
          const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
          if (!step) return;
          event.preventDefault();
          setAt(Math.max(0, Math.min(choices.length - 1, here + step)));
        }}
      />
      <ul className="jumplist" role="listbox" id={`${id}-list`} aria-label={listLabel}>
        {choices.map(({ key, shown }, i) => (
          <li key={key} id={`${id}-${i}`} role="option" aria-selected={i === here} onClick={() => pick(i)}>
            {shown}
          </li>
        ))}
      </ul>
    </Form>
  );
}
