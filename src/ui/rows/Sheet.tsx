'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { counted, whole } from '../../core/handoff/words';
import { correctCells } from '../../store/rows';
import { useSession } from '../../store/session';
import { Because } from '../asking/Because';
import { useAnswer } from '../asking/useAnswer';

const MOST_SHOWN = 200;

/** Many corrections at once, as a sheet of three columns: each line is checked before anything counts. */
export function Sheet({ shown, close }: { shown: boolean; close: () => void }) {
  const tells = useSession(({ opened }) => opened?.calledBy ?? null);
  const [text, setText] = useState('');
  const [why, setWhy] = useState('');
  const { value: lines } = useAnswer('sheet', shown && text.trim() ? [text] : null, 150);
  const good =
    lines?.flatMap(({ cell, to }) => (cell ? [{ row: cell.row, variable: cell.variable, to }] : [])) ?? [];
  const bad = (lines?.length ?? 0) - good.length;
  const accept = async (): Promise<void> => {
    close();
    await correctCells(good, why);
    setText('');
  };
  return (
    <Modal
      show={shown}
      onHide={close}
      restoreFocus={false}
      size="lg"
      aria-labelledby="sheet-title"
      animation={false}
      scrollable
    >
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="sheet-title" className="fs-5">
          A sheet of corrections
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Form.Group controlId="sheet-text" className="mb-2">
          <Form.Label>
            A line each: {tells ? <span className="code">{tells}</span> : 'the number of the row'}, variable,
            value; parted by tabs, commas or semicolons
          </Form.Label>
          <Form.Control
            as="textarea"
            autoFocus
            rows={6}
            className="code"
            spellCheck={false}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </Form.Group>
        {lines && (
          <table className="grounds" aria-label="How the lines are understood">
            <thead>
              <tr>
                <th scope="col" className="n">
                  Line
                </th>
                <th scope="col">Row</th>
                <th scope="col">Variable</th>
                <th scope="col">Received</th>
                <th scope="col">Counts as</th>
                <th scope="col">What stands in the way</th>
              </tr>
            </thead>
            <tbody>
              {lines.slice(0, MOST_SHOWN).map(({ line, identifier, variable, to, cell, says }) => (
                <tr key={line} className={cell ? undefined : 'missing'}>
                  <td className="n">{line}</td>
                  <td className="code">{identifier}</td>
                  <td className="code">{variable}</td>
                  <td className="code">{cell?.from}</td>
                  <td className="code">{to}</td>
                  <td>{says}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {lines && lines.length > MOST_SHOWN && (
          <p className="soft">and {whole(lines.length - MOST_SHOWN)} more lines</p>
        )}
        <Because id="sheet-why" why={why} setWhy={setWhy} />
      </Modal.Body>
      <Modal.Footer className="justify-content-start">
        <Button disabled={good.length === 0} onClick={() => void accept()}>
          Correct {counted(good.length, 'cell')}
        </Button>
        {bad > 0 && <span>{counted(bad, 'line')} left out, each with its reason.</span>}
      </Modal.Footer>
    </Modal>
  );
}
