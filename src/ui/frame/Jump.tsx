'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { whole } from '../../core/handoff/words';
import { useSession } from '../../store/session';
import { lookAt } from '../../store/sets';
import { ledgerRows } from '../ledger/rows';

const MOST = 9;

/** Goes to any variable from anywhere, by typing its name or what it is about. */
export function Jump() {
  const { asking, summaries, state, flags } = useSession();
  const shown = asking === 'jump';
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const [beyond, setBeyond] = useState(false);
  const enter = useRef<() => void>(() => undefined);
  // Emptied when it is left: what is typed the next time must find it so from the first letter.
  useEffect(() => {
    if (shown) return;
    setTyped('');
    setAt(0);
    setBeyond(false);
  }, [shown]);
  // What is typed before the field has the focus belongs into it.
  useEffect(() => {
    if (!shown) return;
    const early = (event: KeyboardEvent): void => {
      if ((event.target as HTMLElement).id === 'jump' || event.ctrlKey || event.metaKey || event.altKey)
        return;
      if (event.key === 'Enter') enter.current();
      else if (event.key.length === 1) setTyped((now) => now + event.key);
      else return;
      event.preventDefault();
      event.stopPropagation();
      document.getElementById('jump')?.focus();
    };
    document.addEventListener('keydown', early, true);
    return () => document.removeEventListener('keydown', early, true);
  }, [shown]);
  const { found, elsewhere } = useMemo(() => {
    if (!shown) return { found: [], elsewhere: 0 };
    const asked = { search: typed, sort: { by: 'position', down: false }, flags, numbers: new Map() };
    const all = ledgerRows(summaries, state, { ...asked, beyond: true });
    const inside = beyond ? all : ledgerRows(summaries, state, asked);
    return { found: inside.slice(0, MOST), elsewhere: all.length - inside.length };
  }, [shown, typed, summaries, state, beyond]);
  const close = (): void => useSession.setState({ asking: null });
  const go = (name: string | undefined): void => {
    if (!name) return;
    lookAt(name);
    setTimeout(() => document.querySelector<HTMLElement>('.ledger')?.focus());
  };
  enter.current = () => go(found[at]?.name);
  return (
    <Modal show={shown} onHide={close} aria-labelledby="jump-title" animation={false}>
      <Modal.Body>
        <h2 id="jump-title" className="fs-6">
          Go to a variable
        </h2>
        <Form
          onSubmit={(event) => {
            event.preventDefault();
            go(found[at]?.name);
          }}
        >
          <Form.Control
            autoFocus
            id="jump"
            role="combobox"
            aria-expanded="true"
            aria-controls="jump-list"
            aria-activedescendant={found[at] ? `jump-${at}` : undefined}
            aria-label="Name, or what it is about"
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value);
              setAt(0);
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && event.ctrlKey) {
                event.preventDefault();
                setBeyond(true);
                return;
              }
              const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
              if (!step) return;
              event.preventDefault();
              setAt(Math.max(0, Math.min(found.length - 1, at + step)));
            }}
          />
          <ul className="jumplist" role="listbox" id="jump-list" aria-label="Variables">
            {found.map(({ name, label }, i) => (
              <li key={name} id={`jump-${i}`} role="option" aria-selected={i === at} onClick={() => go(name)}>
                <span className="code">{state.called.get(name)?.name ?? name}</span>{' '}
                <span className="soft">{label}</span>
              </li>
            ))}
          </ul>
          {elsewhere > 0 && (
            <p className="mb-0">
              <button type="button" className="btn-bare" onClick={() => setBeyond(true)}>
                {whole(elsewhere)} more out of view
              </button>{' '}
              <kbd>Ctrl Enter</kbd>
            </p>
          )}
          {found.length === 0 && elsewhere === 0 && (
            <p className="soft mb-0">No variable is called so or about that.</p>
          )}
        </Form>
      </Modal.Body>
    </Modal>
  );
}
