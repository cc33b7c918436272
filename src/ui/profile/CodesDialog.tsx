'use client';

import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { REASONS, REASON_NAMES, type Reason } from '../../core/extract/words';
import { counted, whole } from '../../core/handoff/words';
import type { UnderstoodLine } from '../../core/inspect/questions';
import { askOrSay } from '../../store/asking';
import { useAnswer } from '../asking/useAnswer';
import { decide } from '../../store/decisions';

/** Up to this many codes without a label are offered to be labelled. */
const MOST_OFFERED = 60;

/** Labels and missing codes of one variable or of all chosen, typed or pasted as they stand in a document. */
export function CodesDialog({ shown, names, close }: { shown: boolean; names: string[]; close: () => void }) {
  const [text, setText] = useState('');
  const [missing, setMissing] = useState<ReadonlyMap<string, Reason | null>>(new Map());
  useEffect(() => {
    if (!shown) return;
    setMissing(new Map());
    let wanted = true;
    void askOrSay('profile', names[0]).then((profile) => {
      if (!wanted || !profile) return;
      const { variable } = profile;
      const codes =
        variable.frequencies.length <= MOST_OFFERED
          ? variable.frequencies
          : variable.frequencies.filter(({ label, missing: declared }) => label !== null || declared);
      setText(codes.map(({ code, label }) => `${code} ${label ?? ''}`.trimEnd()).join('\n'));
    });
    return () => {
      wanted = false;
    };
    // Asked for once, when it opens: what a person types meanwhile is not written over.
  }, [shown, names[0]]);
  const { value: understood } = useAnswer('understood', shown ? [text, names] : null);
  // What was understood before stays while one types.
  const lastUnderstood = useRef<UnderstoodLine[]>([]);
  if (understood) lastUnderstood.current = understood;
  const lines = shown ? lastUnderstood.current : [];

  const reasonOf = ({ code, missing: read, declared }: UnderstoodLine): Reason | null => {
    const said = code === undefined ? undefined : missing.get(code);
    return said !== undefined ? said : (declared ?? read ?? null);
  };
  const labels = lines.flatMap(({ code, label, known }) =>
    code !== undefined && label !== undefined && label !== known ? [{ code, label }] : [],
  );
  const codes = lines.flatMap((line) => {
    const reason = reasonOf(line);
    return line.code !== undefined && reason !== null && reason !== line.declared
      ? [{ code: line.code, reason }]
      : [];
  });
  const unread = lines.filter(({ code }) => code === undefined).length;
  const accept = async (): Promise<void> => {
    close();
    if (labels.length) await decide({ type: 'label-codes', variables: names, labels });
    if (codes.length) await decide({ type: 'declare-missing', variables: names, codes, rule: null });
  };
  const say = (code: string, reason: Reason | null): void =>
    setMissing((now) => new Map(now).set(code, reason));

  return (
    <Modal show={shown} onHide={close} size="lg" aria-labelledby="codes-title" scrollable animation={false}>
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="codes-title" className="fs-5">
          Labels and missing codes of{' '}
          {names.length === 1 ? <span className="code">{names[0]}</span> : `these ${names.length} variables`}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Form.Group controlId="codes-text" className="mb-2">
          <Form.Label className="mb-1">
            Type a code and its label on each line, or paste the list as it stands in a document
          </Form.Label>
          <Form.Control
            as="textarea"
            rows={7}
            className="code"
            autoFocus
            value={text}
            spellCheck={false}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void accept();
            }}
          />
          <Form.Text>
            “1 Owned”, “1 = Owned”, “Owned (1)”, several in a line parted by / or ; : all are understood.{' '}
            <kbd>Ctrl Enter</kbd> accepts.
          </Form.Text>
        </Form.Group>
        {lines.length > 0 && (
          <div className="understood" tabIndex={0} role="region" aria-label="What is understood">
            <table className="grounds">
              <thead>
                <tr>
                  <th scope="col">Code</th>
                  <th scope="col">Label</th>
                  <th scope="col" className="n">
                    Rows
                  </th>
                  <th scope="col">Stands for no answer</th>
                </tr>
              </thead>
              <tbody>
                {lines.map((line, i) =>
                  line.code === undefined ? (
                    <tr key={i}>
                      <td colSpan={4} className="soft">
                        “{line.text}”: {line.says}
                      </td>
                    </tr>
                  ) : (
                    <Understood key={i} line={line} reason={reasonOf(line)} say={say} />
                  ),
                )}
              </tbody>
            </table>
          </div>
        )}
      </Modal.Body>
      <Modal.Footer className="justify-content-start">
        <Button disabled={labels.length + codes.length === 0} onClick={() => void accept()}>
          {labels.length + codes.length === 0
            ? 'Nothing new to accept'
            : `Accept ${[labels.length && counted(labels.length, 'label'), codes.length && `${counted(codes.length, 'code')} as missing`].filter(Boolean).join(' and ')}`}
        </Button>
        <Button variant="quiet" onClick={close}>
          Leave as it is
        </Button>
        {unread > 0 && <span className="soft">{counted(unread, 'line')} not understood</span>}
      </Modal.Footer>
    </Modal>
  );
}

function Understood({
  line: { code = '', label, says, rows, declared },
  reason,
  say,
}: {
  line: UnderstoodLine;
  reason: Reason | null;
  say: (code: string, reason: Reason | null) => void;
}) {
  return (
    <tr>
      <td className="code">{code}</td>
      <td>{label ?? <span className="soft">{says}</span>}</td>
      <td className="n">{rows === 0 ? <span className="soft">no row</span> : whole(rows)}</td>
      <td>
        {/* What is declared already is taken back by undoing that ruling, not here. */}
        <Form.Check
          inline
          type="checkbox"
          id={`missing ${code}`}
          aria-label={`${code} stands for no answer`}
          checked={reason !== null}
          disabled={declared !== null}
          onChange={(event) => say(code, event.target.checked ? 'no-answer' : null)}
        />
        {reason !== null && (
          <select
            className="form-select form-select-sm"
            aria-label={`Why ${code} is no answer`}
            value={reason}
            onChange={(event) => say(code, REASONS.find((known) => known === event.target.value) ?? 'other')}
          >
            {REASONS.map((one) => (
              <option key={one} value={one}>
                {REASON_NAMES[one]}
              </option>
            ))}
          </select>
        )}
      </td>
    </tr>
  );
}
