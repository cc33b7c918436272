'use client';

import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { decide } from '../../store/decisions';
import { useParts } from '../../store/session';
import { portability } from './rows';

/** Another name and label for a variable; the archive's own are kept beside. */
export function NameDialog({ shown, name, close }: { shown: boolean; name: string; close: () => void }) {
  const { summaries, state } = useParts('summaries', 'state');
  const summary = summaries.find((one) => one.name === name);
  const archive = summary?.archiveLabel ?? (state.called.get(name)?.label ? null : (summary?.label ?? null));
  const [called, setCalled] = useState('');
  const [label, setLabel] = useState('');
  useEffect(() => {
    if (!shown) return;
    setCalled(state.called.get(name)?.name ?? name);
    setLabel(summary?.label ?? '');
    // Once the name stands there: one types over it.
    setTimeout(() => document.querySelector<HTMLInputElement>('#new-name')?.select());
  }, [shown, name]);
  const others = summaries
    .filter((one) => one.name !== name)
    .map((one) => state.called.get(one.name)?.name ?? one.name);
  const odd = portability(called.trim(), others);
  const taken = called.trim() === '' || others.includes(called.trim());
  const save = (): void => {
    if (taken) return;
    close();
    const next = {
      name: called.trim() === name ? null : called.trim(),
      label: label.trim() === '' || label.trim() === archive ? null : label.trim(),
    };
    const before = state.called.get(name) ?? { name: null, label: null };
    if (next.name !== before.name || next.label !== before.label)
      void decide({ type: 'rename', variable: name, ...next });
  };
  return (
    <Modal show={shown} onHide={close} aria-labelledby="name-title" animation={false}>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title as="h2" id="name-title" className="fs-5">
            Name and label of <span className="code">{name}</span>
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <Form.Group controlId="new-name" className="mb-3">
            <Form.Label>Name</Form.Label>
            <Form.Control
              autoFocus
              className="code"
              value={called}
              isInvalid={taken}
              onFocus={(event) => event.target.select()}
              onChange={(event) => setCalled(event.target.value)}
            />
            <Form.Text role="status">
              {odd ?? 'any software takes it'}
              {called.trim() !== name && `; in the archive it is ${name}`}
            </Form.Text>
          </Form.Group>
          <Form.Group controlId="new-label">
            <Form.Label>Label</Form.Label>
            <Form.Control value={label} onChange={(event) => setLabel(event.target.value)} />
            <Form.Text>
              {archive ? `the archive’s own: ${archive}` : 'the archive gives none'}; leave it empty for the
              archive’s own
            </Form.Text>
          </Form.Group>
        </Modal.Body>
        <Modal.Footer className="justify-content-start">
          <Button type="submit" disabled={taken}>
            Keep this
          </Button>
          <Button variant="quiet" onClick={close}>
            Leave as it is
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
