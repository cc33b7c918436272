'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';

interface Props {
  title: string;
  /** The name that it has; empty for something new. */
  before: string;
  /** Names that others have. */
  taken: readonly string[];
  accept: (name: string) => void;
  close: () => void;
}

/** Asks for a name: another for what has one, or one for what is new. */
export function AskName({ shown, ...asked }: Props & { shown: boolean }) {
  return (
    <Modal show={shown} onHide={asked.close} aria-labelledby="nameset-title" animation={false}>
      <Naming {...asked} />
    </Modal>
  );
}

/** Made anew each time it is asked, so that the name stands there, chosen, from the first letter. */
function Naming({ title, before, taken: names, accept, close }: Props) {
  const [name, setName] = useState(before);
  const wished = name.trim();
  const taken = names.includes(wished) && wished !== before;
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        if (!wished || taken) return;
        close();
        if (wished !== before) accept(wished);
      }}
    >
      <Modal.Body>
        <Form.Group controlId="nameset">
          <Form.Label id="nameset-title">{title}</Form.Label>
          <Form.Control
            autoFocus
            onFocus={(event) => event.target.select()}
            value={name}
            isInvalid={taken}
            onChange={(event) => setName(event.target.value)}
          />
          {taken && (
            <Form.Control.Feedback type="invalid">There is one of this name already.</Form.Control.Feedback>
          )}
        </Form.Group>
      </Modal.Body>
      <Modal.Footer>
        <Button variant="quiet" onClick={close}>
          Leave it
        </Button>
        <Button type="submit" disabled={!wished || taken}>
          Call it so
        </Button>
      </Modal.Footer>
    </Form>
  );
}
