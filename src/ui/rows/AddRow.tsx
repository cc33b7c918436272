'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { counted, whole } from '../../core/handoff/words';
import { addRows } from '../../store/rows';
import { changeTable } from '../../store/session';
import { Because } from '../asking/Because';
import { useInView } from '../sets/useInView';

/** Fields that are drawn at once; others are found by typing. */
const MOST_FIELDS = 120;

/** A row that was not received: what is not filled in is blank. */
export function AddRow({ shown, close }: { shown: boolean; close: () => void }) {
  const { inside } = useInView();
  const [cells, setCells] = useState<Record<string, string>>({});
  const [search, setSearch] = useState('');
  const [why, setWhy] = useState('');
  const word = search.trim().toLowerCase();
  const fitting = inside.filter(({ name, label }) => `${name} ${label ?? ''}`.toLowerCase().includes(word));
  const filled = Object.entries(cells).filter(([, text]) => text !== '');
  const accept = async (): Promise<void> => {
    close();
    await addRows([Object.fromEntries(filled)], why);
    setCells({});
    setWhy('');
    changeTable({ row: Number.MAX_SAFE_INTEGER });
  };
  return (
    <Modal
      show={shown}
      onHide={close}
      restoreFocus={false}
      size="lg"
      aria-labelledby="addrow-title"
      animation={false}
      scrollable
    >
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="addrow-title" className="fs-5">
          Add a row
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p className="soft">
          It stands behind all that were received, in no file, and counts everywhere. What is not filled in is
          blank.
        </p>
        <Form.Control
          size="sm"
          type="search"
          autoFocus
          className="mb-2"
          placeholder="Find a variable"
          aria-label="Find a variable"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <div className="addcells">
          {fitting.slice(0, MOST_FIELDS).map(({ name, label }) => (
            <label key={name} title={label ?? undefined}>
              <span className="code">{name}</span> <span className="soft">{label}</span>
              <input
                className="form-control form-control-sm code"
                autoComplete="off"
                value={cells[name] ?? ''}
                onChange={(event) => setCells({ ...cells, [name]: event.target.value })}
              />
            </label>
          ))}
        </div>
        {fitting.length > MOST_FIELDS && (
          <p className="soft">and {whole(fitting.length - MOST_FIELDS)} more: type to find one</p>
        )}
        <Because id="addrow-why" why={why} setWhy={setWhy} />
      </Modal.Body>
      <Modal.Footer className="justify-content-start">
        <Button disabled={filled.length === 0} onClick={() => void accept()}>
          Add it with {counted(filled.length, 'cell')} filled in
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
