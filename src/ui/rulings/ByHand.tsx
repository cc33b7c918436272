'use client';

import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { counted } from '../../core/handoff/words';
import type { Decision } from '../../core/log/entries';
import { decide } from '../../store/decisions';
import { useSession } from '../../store/session';
import { Because } from '../asking/Because';
import { emptyForm, rulingOf, type Form as Said, type What } from './byHandRuling';
import { ByHandForm } from './ByHandForm';
import { useCodes } from './CodePicker';

const WHATS: Record<What, string> = {
  missing: 'Declare codes missing',
  merge: 'Count codes for another',
  universe: 'Say who was not asked',
  role: 'Say its role',
  ask: 'Ask the archive',
};

/** A ruling on variables that no flag asked for: the same ones, and as easily undone. */
export function ByHand({ shown, names, close }: { shown: boolean; names: string[]; close: () => void }) {
  const summaries = useSession((session) => session.summaries);
  const presumedRole = summaries.find(({ name }) => name === names[0])?.role ?? 'analysis';
  const [form, setForm] = useState(() => emptyForm(presumedRole));
  const change = (part: Partial<Said>): void => setForm((now) => ({ ...now, ...part }));
  useEffect(() => {
    // The kind of ruling stays what it was last.
    if (shown) setForm(({ what, reason }) => ({ ...emptyForm(presumedRole), what, reason }));
  }, [shown, names.join('\n')]);
  const codes = useCodes(names, shown);
  const gateKnown = summaries.some(({ name }) => name === form.gate) && !names.includes(form.gate);
  const gateCodes = useCodes([form.gate], shown && form.what === 'universe' && gateKnown);
  const made = rulingOf(form, { names, codes, gateKnown, presumedRole });
  const accept = async (): Promise<void> => {
    if (made.decisions.length === 0) return;
    close();
    for (const decision of made.decisions)
      await decide({ ...decision, ...(form.why.trim() ? { why: form.why.trim() } : {}) } as Decision);
  };

  return (
    <Modal
      show={shown}
      onHide={close}
      size="lg"
      aria-labelledby="byhand-title"
      scrollable
      onKeyDown={(event: React.KeyboardEvent) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void accept();
      }}
      animation={false}
    >
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="byhand-title" className="fs-5">
          A ruling on{' '}
          {names.length === 1 ? (
            <span className="code">{names[0]}</span>
          ) : (
            `these ${counted(names.length, 'variable')}`
          )}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body className="byhand">
        <div className="whats" role="radiogroup" aria-label="Ruling">
          {(Object.entries(WHATS) as [What, string][]).map(([key, says]) => (
            <Form.Check
              key={key}
              type="radio"
              name="byhand-what"
              id={`byhand-${key}`}
              label={says}
              checked={form.what === key}
              autoFocus={key === form.what}
              onChange={() => change({ what: key })}
            />
          ))}
        </div>
        <div>
          <ByHandForm
            form={form}
            change={change}
            names={names}
            codes={codes}
            gateKnown={gateKnown}
            gateCodes={gateCodes}
          />
          <Because id="byhand-why" why={form.why} setWhy={(why) => change({ why })} />
        </div>
      </Modal.Body>
      <Modal.Footer className="justify-content-start">
        <Button disabled={made.decisions.length === 0} onClick={() => void accept()}>
          {made.says}
        </Button>
        <span className="soft">
          <kbd>Ctrl Enter</kbd> accepts. The data are not changed.
        </span>
      </Modal.Footer>
    </Modal>
  );
}
