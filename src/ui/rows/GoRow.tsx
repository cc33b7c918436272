'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import type { ListAsk } from '../../core/inspect/listing';
import { askOrSay } from '../../store/asking';
import { changeTable, useParts } from '../../store/session';

/** Goes to a row by its number or by what identifies it. */
export function GoRow({ shown, ask, close }: { shown: boolean; ask: ListAsk; close: () => void }) {
  const { opened, table } = useParts('opened', 'table');
  // Of rows that are not held it is not known what identifies them.
  const calledBy = table.which === 'whole' ? null : opened?.calledBy;
  const [typed, setTyped] = useState('');
  const [none, setNone] = useState<string | null>(null);
  const go = async (): Promise<void> => {
    if (!typed.trim()) return;
    const place = await askOrSay('placeIn', ask, typed);
    if (place === null) setNone(typed);
    else {
      changeTable({ row: place });
      setTyped('');
      close();
    }
  };
  return (
    <Modal
      show={shown}
      onHide={close}
      restoreFocus={false}
      aria-labelledby="gorow-title"
      animation={false}
      onExited={() => (setTyped(''), setNone(null))}
    >
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          void go();
        }}
      >
        <Modal.Body>
          <Form.Group controlId="gorow">
            <Form.Label id="gorow-title">
              Go to a row by {calledBy && <span className="code">{calledBy}</span>}
              {calledBy && ' or by'} its number
            </Form.Label>
            <Form.Control
              autoFocus
              autoComplete="off"
              value={typed}
              isInvalid={none === typed && none !== ''}
              onChange={(event) => setTyped(event.target.value)}
            />
            {none !== null && none === typed && (
              <Form.Control.Feedback type="invalid">
                {table.which === 'received' || table.which === 'whole'
                  ? 'There is no such row.'
                  : 'It is not among the rows that are listed.'}
              </Form.Control.Feedback>
            )}
          </Form.Group>
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit" disabled={!typed.trim()}>
            Go
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
