'use client';

import Form from 'react-bootstrap/Form';
import { REASONS, REASON_NAMES, ROLES, type Role } from '../../core/extract/words';
import type { CodeHeld } from '../../core/inspect/questions';
import { useInView } from '../sets/useInView';
import type { Form as Said } from './byHandRuling';
import { CodePicker } from './CodePicker';

const ROLE_MEANS: Record<Role, string> = {
  analysis: 'what was asked or measured',
  identifier: 'tells units apart',
  weight: 'weighs rows',
  design: 'stratum, cluster, replicate',
  wave: 'tells the wave',
  imputation: 'says what was filled in',
  admin: 'left over from making the file',
};

interface Props {
  form: Said;
  change: (part: Partial<Said>) => void;
  names: string[];
  codes: readonly CodeHeld[];
}

/** What is to be said for the kind of ruling that was chosen. */
export function ByHandForm({
  gateKnown,
  gateCodes,
  ...props
}: Props & { gateKnown: boolean; gateCodes: readonly CodeHeld[] }) {
  switch (props.form.what) {
    case 'missing':
    case 'merge':
      return <CodesForm {...props} />;
    case 'universe':
      return <UniverseForm {...props} gateKnown={gateKnown} gateCodes={gateCodes} />;
    case 'role':
      return <RoleForm {...props} />;
    case 'ask':
      return <QuestionForm {...props} />;
  }
}

function CodesForm({ form: { what, picked, reason, into }, change, codes }: Props) {
  return (
    <>
      <CodePicker
        id="byhand-codes"
        title={
          what === 'missing' ? 'Codes that stand for no answer' : 'Codes that are another one, miswritten'
        }
        codes={codes}
        picked={picked}
        pick={(picked) => change({ picked })}
      />
      {what === 'missing' && (
        <Form.Group controlId="byhand-reason" className="mb-2">
          <Form.Label className="mb-1">They mean</Form.Label>
          <Form.Select
            size="sm"
            value={reason}
            onChange={(event) =>
              change({ reason: REASONS.find((known) => known === event.target.value) ?? 'other' })
            }
          >
            {REASONS.map((one) => (
              <option key={one} value={one}>
                {REASON_NAMES[one]}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
      )}
      {what === 'merge' && (
        <Form.Group controlId="byhand-into" className="mb-2">
          <Form.Label className="mb-1">The code they count for</Form.Label>
          <Form.Control
            size="sm"
            list="byhand-intos"
            value={into}
            autoComplete="off"
            onChange={(event) => change({ into: event.target.value })}
          />
          <datalist id="byhand-intos">
            {codes.slice(0, 200).map(({ code, label }) => (
              <option key={code} value={code}>
                {label}
              </option>
            ))}
          </datalist>
        </Form.Group>
      )}
    </>
  );
}

function UniverseForm({
  form: { gate, shut },
  change,
  names,
  gateKnown,
  gateCodes,
}: Props & { gateKnown: boolean; gateCodes: readonly CodeHeld[] }) {
  const { inside, outside } = useInView();
  return (
    <>
      <Form.Group controlId="byhand-gate" className="mb-2">
        <Form.Label className="mb-1">The variable it hangs on</Form.Label>
        <Form.Control
          size="sm"
          list="byhand-gates"
          value={gate}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => change({ gate: event.target.value, shut: new Set() })}
        />
        <datalist id="byhand-gates">
          {inside
            .filter(({ name }) => !names.includes(name))
            .map(({ name, label }) => (
              <option key={name} value={name}>
                {label}
              </option>
            ))}
        </datalist>
        {outside > 0 && (
          <Form.Text>Offered are the {inside.length} in view; any name can be typed.</Form.Text>
        )}
      </Form.Group>
      {gateKnown && (
        <CodePicker
          id="byhand-shut"
          title={`Codes of ${gate} at which it was not asked`}
          codes={gateCodes}
          picked={shut}
          pick={(shut) => change({ shut })}
        />
      )}
    </>
  );
}

function RoleForm({ form: { role }, change }: Props) {
  return (
    <div role="radiogroup" aria-label="Role" className="mb-2">
      {ROLES.map((one) => (
        <Form.Check
          key={one}
          type="radio"
          name="byhand-role"
          id={`byhand-role-${one}`}
          checked={role === one}
          onChange={() => change({ role: one })}
          label={
            <>
              {one} <span className="soft">{ROLE_MEANS[one]}</span>
            </>
          }
        />
      ))}
    </div>
  );
}

function QuestionForm({ form: { question, picked }, change, codes }: Props) {
  return (
    <>
      <Form.Group controlId="byhand-question" className="mb-2">
        <Form.Label className="mb-1">The question</Form.Label>
        <Form.Control
          as="textarea"
          rows={3}
          value={question}
          onChange={(event) => change({ question: event.target.value })}
        />
      </Form.Group>
      <CodePicker
        id="byhand-codes"
        title="Codes that it is about, if any"
        codes={codes}
        picked={picked}
        pick={(picked) => change({ picked })}
      />
    </>
  );
}
