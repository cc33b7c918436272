'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { REASONS, REASON_NAMES, type Reason } from '../../core/extract/words';
import { fits, sameRule, type StandingRule } from '../../core/flags/standing-rules';
import { counted, whole } from '../../core/handoff/words';
import { outside } from '../../store/outside';
import { useParts } from '../../store/session';
import { standBy } from '../../store/standing';

/** A standing rule, typed. */
export function StandingForm() {
  const { standing, summaries } = useParts('standing', 'summaries');
  const [code, setCode] = useState('');
  const [reason, setReason] = useState<Reason>('not-asked');
  const [names, setNames] = useState('*');
  const [note, setNote] = useState('');
  const typed: StandingRule = {
    id: 'typed',
    code: code.trim(),
    reason,
    names: names.trim() || '*',
    note: note.trim(),
  };
  const about = summaries.filter(({ name }) => fits(name, typed.names)).length;
  const twice = standing.some((rule) => sameRule(rule, typed));
  const add = (): void => {
    if (!typed.code || twice) return;
    void standBy([...standing, { ...typed, id: outside().newId() }]);
    setCode('');
    setNote('');
    document.getElementById('standing-code')?.focus();
  };
  return (
    <>
      <form
        className="standingform"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <Form.Group controlId="standing-code">
          <Form.Label>Code</Form.Label>
          <Form.Control
            size="sm"
            className="code"
            value={code}
            autoFocus
            autoComplete="off"
            onChange={(event) => setCode(event.target.value)}
          />
        </Form.Group>
        <Form.Group controlId="standing-reason">
          <Form.Label>is</Form.Label>
          <Form.Select
            size="sm"
            value={reason}
            onChange={(event) => setReason(REASONS.find((known) => known === event.target.value) ?? 'other')}
          >
            {REASONS.map((one) => (
              <option key={one} value={one}>
                {REASON_NAMES[one]}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="standing-names">
          <Form.Label>in variables called</Form.Label>
          <Form.Control
            size="sm"
            className="code"
            value={names}
            spellCheck={false}
            autoComplete="off"
            onChange={(event) => setNames(event.target.value)}
          />
        </Form.Group>
        <Form.Group controlId="standing-note">
          <Form.Label>your words</Form.Label>
          <Form.Control size="sm" value={note} onChange={(event) => setNote(event.target.value)} />
        </Form.Group>
        <Button type="submit" size="sm" disabled={!typed.code || twice}>
          {twice ? 'Stands already' : 'Add'}
        </Button>
      </form>
      <p className="soft small mt-1">
        A star stands for any signs: <span className="code">warm_*, own_*</span>. These names: {whole(about)}{' '}
        of {counted(summaries.length, 'variable')} here.
      </p>
    </>
  );
}
