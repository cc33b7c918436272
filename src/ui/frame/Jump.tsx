'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import Modal from 'react-bootstrap/Modal';
import { whole } from '../../core/handoff/words';
import { useSession, useParts } from '../../store/session';
import { lookAt } from '../../store/sets';
import { PickList } from '../asking/PickList';
import { useEarlyTyping } from '../asking/useEarlyTyping';
import { ledgerRows } from '../ledger/rows';

const MOST = 9;

/** Goes to any variable from anywhere, by typing its name or what it is about. */
export function Jump() {
  const { asking, summaries, state, flags } = useParts('asking', 'summaries', 'state', 'flags');
  const shown = asking === 'jump';
  const [typed, setTyped] = useState('');
  const [beyond, setBeyond] = useState(false);
  const enter = useRef<() => void>(() => undefined);
  // Emptied when it is left: what is typed the next time must find it so from the first letter.
  useEffect(() => {
    if (shown) return;
    setTyped('');
    setBeyond(false);
  }, [shown]);
  useEarlyTyping(shown, 'jump', setTyped, () => enter.current());
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
  enter.current = () => go(found[0]?.name);
  return (
    <Modal show={shown} onHide={close} aria-labelledby="jump-title" animation={false}>
      <Modal.Body>
        <h2 id="jump-title" className="fs-6">
          Go to a variable
        </h2>
        <PickList
          id="jump"
          label="Name, or what it is about"
          listLabel="Variables"
          typed={typed}
          setTyped={setTyped}
          choices={found.map(({ name, label }) => ({
            key: name,
            shown: (
              <>
                <span className="code">{state.called.get(name)?.name ?? name}</span>{' '}
                <span className="soft">{label}</span>
              </>
            ),
          }))}
          pick={(place) => go(found[place].name)}
          onKeyDown={({ key, ctrlKey }) => {
            if (key !== 'Enter' || !ctrlKey) return false;
            setBeyond(true);
            return true;
          }}
        />
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
      </Modal.Body>
    </Modal>
  );
}
