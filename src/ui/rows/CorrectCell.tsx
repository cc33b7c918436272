'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { whole } from '../../core/handoff/words';
import type { ListAsk } from '../../core/inspect/listing';
import type { Sievable } from '../../core/inspect/questions';
import type { ListedRow } from '../../engine/records';
import { correctCells } from '../../store/rows';
import { Because } from '../asking/Because';
import { useAnswer } from '../asking/useAnswer';

/** Another text for one cell: what was received stays, and is shown beside it. */
export function CorrectCell({
  shown,
  ask,
  place,
  column,
  close,
}: {
  shown: boolean;
  ask: ListAsk;
  place: number;
  column: string | null;
  close: () => void;
}) {
  const { value } = useAnswer('listedRows', shown && column !== null ? [ask, place, 1, [column]] : null);
  const { value: about } = useAnswer('sievable', shown && column !== null ? [column] : null);
  const [row] = value ?? [];
  return (
    <Modal
      show={shown && row !== undefined && about !== null}
      onHide={close}
      restoreFocus={false}
      aria-labelledby="cell-title"
      animation={false}
    >
      {row && about && <Correcting row={row} about={about} close={close} />}
    </Modal>
  );
}

/** Made anew each time it is asked, so that what the cell counts as stands there, chosen, from the first letter. */
function Correcting({ row, about, close }: { row: ListedRow; about: Sievable; close: () => void }) {
  const [cell] = row.cells;
  const now = cell.code ?? cell.raw;
  const [typed, setTyped] = useState(now);
  const [why, setWhy] = useState('');
  const { name, codes } = about;
  const correct = async (to: string | null): Promise<void> => {
    close();
    await correctCells([{ row: row.row - 1, variable: name, to }], why);
  };
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        if (typed !== now) void correct(typed);
      }}
    >
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="cell-title" className="fs-5">
          Correct <span className="code">{name}</span>
          <span className="soft fs-6"> in row {whole(row.place)}</span>
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>
          Received:{' '}
          {cell.raw === '' ? <span className="soft">blank</span> : <span className="code">“{cell.raw}”</span>}{' '}
          {!cell.corrected && cell.label}
          <span className="soft">
            {row.line === null ? '' : `, line ${whole(row.line)} of ${row.file}`}. It stays as it is; what you
            write counts in its place.
          </span>
        </p>
        <Form.Group controlId="cell-to" className="mb-2">
          <Form.Label>Counts as</Form.Label>
          <Form.Control
            autoFocus
            className="code"
            autoComplete="off"
            list="cell-codes"
            value={typed}
            onFocus={(event) => event.target.select()}
            onChange={(event) => setTyped(event.target.value)}
          />
          <datalist id="cell-codes">
            {codes.slice(0, MOST_OFFERED).map(({ code, label }) => (
              <option key={code} value={code}>
                {label ?? ''}
              </option>
            ))}
          </datalist>
          {typed.trim() !== '' && !codes.some(({ code }) => code === typed) && (
            <Form.Text>No other row holds “{typed}”.</Form.Text>
          )}
        </Form.Group>
        <Because id="cell-why" why={why} setWhy={setWhy} small={false} />
      </Modal.Body>
      <Modal.Footer>
        {cell.corrected && (
          <Button variant="quiet" onClick={() => void correct(null)}>
            As it was received
          </Button>
        )}
        <Button variant="quiet" onClick={close}>
          Leave it
        </Button>
        <Button type="submit" disabled={typed === now}>
          Correct it
        </Button>
      </Modal.Footer>
    </Form>
  );
}

const MOST_OFFERED = 100;
