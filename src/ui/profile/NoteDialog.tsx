'use client';

import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { decide } from '../../store/decisions';
import { useSession } from '../../store/session';

/** What a person writes down about a variable. */
export function NoteDialog({ shown, name, close }: { shown: boolean; name: string; close: () => void }) {
  const note = useSession((session) => session.state.notes.get(name) ?? '');
  const [text, setText] = useState('');
  useEffect(() => {
    if (shown) setText(note);
  }, [shown, name]);
  const save = (): void => {
    close();
    if (text.trim() !== note) void decide({ type: 'note', variable: name, text: text.trim() });
  };
  return (
    <Modal show={shown} onHide={close} aria-labelledby="note-title" animation={false}>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title as="h2" id="note-title" className="fs-5">
            Note on <span className="code">{name}</span>
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <Form.Control
            as="textarea"
            rows={5}
            autoFocus
            aria-label={`Note on ${name}`}
            value={text}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) save();
            }}
          />
          <Form.Text>
            It can be searched for, and goes into the handoff. <kbd>Ctrl Enter</kbd> keeps it.
          </Form.Text>
        </Modal.Body>
        <Modal.Footer className="justify-content-start">
          <Button type="submit">Keep the note</Button>
          <Button variant="quiet" onClick={close}>
            Leave as it is
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
