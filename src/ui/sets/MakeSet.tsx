'use client';

import { useProposals } from './useProposals';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { counted } from '../../core/handoff/words';
import { useSession } from '../../store/session';
import { makeSet, viewSets } from '../../store/sets';

interface Props {
  names: string[];
  close: () => void;
}

/** Names a set of the chosen variables, and puts it in view if wished. */
export function MakeSet({ shown, ...about }: Props & { shown: boolean }) {
  return (
    <Modal show={shown} onHide={about.close} aria-labelledby="set-title" animation={false}>
      <Making {...about} />
    </Modal>
  );
}

/** Made anew each time, so that a proposed name stands there, chosen, before anything is typed. */
function Making({ names, close }: Props) {
  const state = useSession((now) => now.state);
  const proposed = useProposals().proposals.find(
    ({ variables }) =>
      variables.length === names.length && variables.every((variable) => names.includes(variable)),
  );
  const [name, setName] = useState(proposed?.name ?? '');
  useEffect(() => {
    // It may be found only while the dialog is open; what was typed meanwhile stays.
    if (proposed) setName((now) => now || proposed.name);
  }, [proposed?.name]);
  const [view, setView] = useState(true);
  const taken = [...state.sets.values()].some((set) => set.name === name.trim());
  const make = async (): Promise<void> => {
    if (!name.trim() || taken) return;
    close();
    useSession.setState({ chosen: new Set() });
    const id = await makeSet(name.trim(), names);
    if (view) viewSets([...state.shown, id]);
  };
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="set-title" className="fs-5">
          A set of {counted(names.length, 'variable')}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p className="soft code text-break">
          {names.slice(0, 12).join(', ')}
          {names.length > 12 && ` and ${names.length - 12} more`}
        </p>
        <Form.Group controlId="set-name" className="mb-3">
          <Form.Label>What are they about?</Form.Label>
          <Form.Control
            autoFocus
            onFocus={(event) => event.target.select()}
            value={name}
            isInvalid={taken}
            placeholder="Heating"
            onChange={(event) => setName(event.target.value)}
          />
          {taken && (
            <Form.Control.Feedback type="invalid">There is a set of this name already.</Form.Control.Feedback>
          )}
        </Form.Group>
        <Form.Check
          id="set-view"
          label="Put it in view: all other variables leave every list until brought back"
          checked={view}
          onChange={(event) => setView(event.target.checked)}
        />
      </Modal.Body>
      <Modal.Footer>
        <Button variant="quiet" onClick={close}>
          Leave it
        </Button>
        <Button type="submit" disabled={!name.trim() || taken}>
          Make the set
        </Button>
      </Modal.Footer>
    </Form>
  );
}
