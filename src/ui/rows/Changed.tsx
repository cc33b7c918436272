'use client';

import Modal from 'react-bootstrap/Modal';
import type { Entry } from '../../core/log/entries';
import { inForce } from '../../core/log/fold';
import { counted } from '../../core/handoff/words';
import { useSession } from '../../store/session';
import { Ruled } from '../flags/Ruled';

const CHANGES: ReadonlySet<Entry['type']> = new Set([
  'correct-cells',
  'add-rows',
  'set-aside',
  'count-again',
] as const);

/** Everything that a person changed of rows and cells, each to be taken back. */
export function Changed({ shown, close }: { shown: boolean; close: () => void }) {
  const log = useSession((session) => session.log);
  const entries = inForce(log).filter(({ type }) => CHANGES.has(type));
  return (
    <Modal
      show={shown}
      onHide={close}
      restoreFocus={false}
      size="lg"
      aria-labelledby="changed-title"
      animation={false}
      scrollable
    >
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="changed-title" className="fs-5">
          Corrected, added, set aside
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {entries.length === 0 ? (
          <p className="soft">Nothing: every row and cell counts as it was received.</p>
        ) : (
          <p>
            {counted(entries.length, 'ruling')} on rows and cells. The received data are not changed by any.
          </p>
        )}
        <Ruled rulings={entries} />
      </Modal.Body>
    </Modal>
  );
}
