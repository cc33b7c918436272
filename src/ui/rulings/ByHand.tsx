'use client';

import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { REASONS, REASON_NAMES, ROLES, type Reason, type Role } from '../../core/extract/words';
import { counted } from '../../core/handoff/words';
import type { Decision } from '../../core/log/entries';
import { decide } from '../../store/decisions';
import { useSession } from '../../store/session';
import { CodePicker, useCodes } from './CodePicker';

type What = 'missing' | 'merge' | 'universe' | 'role' | 'ask';
const WHATS: Record<What, string> = {
  missing: 'Declare codes missing',
  merge: 'Count codes for another',
  universe: 'Say who was not asked',
  role: 'Say its role',
  ask: 'Ask the archive',
};
const ROLE_MEANS: Record<Role, string> = {
  analysis: 'what was asked or measured',
  identifier: 'tells units apart',
  weight: 'weighs rows',
  design: 'stratum, cluster, replicate',
  wave: 'tells the wave',
  imputation: 'says what was filled in',
  admin: 'left over from making the file',
};
/** The rule under which a question without a flag stands. */
const BY_HAND = 'by-hand';
const NONE: ReadonlySet<string> = new Set();

/** A ruling on variables that no flag asked for: the same ones, and as easily undone. */
export function ByHand({ shown, names, close }: { shown: boolean; names: string[]; close: () => void }) {
  const summaries = useSession((session) => session.summaries);
  const [what, setWhat] = useState<What>('missing');
  const [picked, setPicked] = useState(NONE);
  const [reason, setReason] = useState<Reason>('no-answer');
  const [into, setInto] = useState('');
  const [gate, setGate] = useState('');
  const [shut, setShut] = useState(NONE);
  const [role, setRole] = useState<Role>('analysis');
  const [question, setQuestion] = useState('');
  const [why, setWhy] = useState('');
  const presumedRole = summaries.find(({ name }) => name === names[0])?.role ?? 'analysis';
  useEffect(() => {
    if (!shown) return;
    setPicked(NONE);
    setShut(NONE);
    setInto('');
    setGate('');
    setQuestion('');
    setWhy('');
    setRole(presumedRole);
  }, [shown, names.join('\n')]);
  const codes = useCodes(names, shown);
  const gateKnown = summaries.some(({ name }) => name === gate) && !names.includes(gate);
  const gateCodes = useCodes([gate], shown && what === 'universe' && gateKnown);
  const here = names.length === 1 ? '' : ` in ${counted(names.length, 'variable')}`;
  const holding = codes.reduce((sum, { code, count }) => (picked.has(code) ? sum + count : sum), 0);
  const target = into.trim();

  /** What the form says so far, as decisions; and what is still needed. */
  const made = ((): { decisions: Decision[]; says: string } => {
    const nothing = (says: string): { decisions: Decision[]; says: string } => ({ decisions: [], says });
    const list = [...picked];
    switch (what) {
      case 'missing':
        return list.length === 0
          ? nothing('Tick a code first')
          : {
              decisions: [
                {
                  type: 'declare-missing',
                  variables: names,
                  codes: list.map((code) => ({ code, reason })),
                  rule: null,
                },
              ],
              says: `Declare ${list.slice(0, 4).join(', ')} missing${here}: ${counted(holding, 'row')}`,
            };
      case 'merge': {
        const others = list.filter((code) => code !== target);
        return others.length === 0
          ? nothing('Tick a code first')
          : !target
            ? nothing('Say which code they stand for')
            : {
                decisions: [
                  { type: 'merge-codes', variables: names, codes: others, into: target, rule: null },
                ],
                says: `Count ${others.slice(0, 4).join(', ')} for ${target}${here}: ${counted(
                  codes.reduce((sum, { code, count }) => (others.includes(code) ? sum + count : sum), 0),
                  'row',
                )}`,
              };
      }
      case 'universe':
        return !gateKnown
          ? nothing(
              gate && names.includes(gate) ? 'It cannot hang on itself' : 'Name the variable it hangs on',
            )
          : shut.size === 0
            ? nothing(`Tick the codes of ${gate} at which it was not asked`)
            : {
                decisions: names.map((variable) => ({
                  type: 'accept-universe',
                  variable,
                  by: gate,
                  shut: [...shut],
                })),
                says: `Take blanks for not asked where ${gate} is ${[...shut].slice(0, 4).join(', ')}${here}`,
              };
      case 'role':
        return names.length === 1 && role === presumedRole
          ? nothing(`It has the role ${role}`)
          : {
              decisions: [{ type: 'confirm-role', roles: names.map((variable) => ({ variable, role })) }],
              says: `Give ${names.length === 1 ? 'it' : 'them'} the role ${role}`,
            };
      case 'ask':
        return !question.trim()
          ? nothing('Write the question first')
          : {
              decisions: [
                {
                  type: 'ask-archive',
                  variables: names,
                  codes: list,
                  rule: BY_HAND,
                  question: question.trim(),
                },
              ],
              says: 'Write it down for the letter',
            };
    }
  })();
  const accept = async (): Promise<void> => {
    if (made.decisions.length === 0) return;
    close();
    for (const decision of made.decisions)
      await decide({ ...decision, ...(why.trim() ? { why: why.trim() } : {}) } as Decision);
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
              checked={what === key}
              autoFocus={key === what}
              onChange={() => setWhat(key)}
            />
          ))}
        </div>
        <div>
          {(what === 'missing' || what === 'merge') && (
            <CodePicker
              id="byhand-codes"
              title={
                what === 'missing'
                  ? 'Codes that stand for no answer'
                  : 'Codes that are another one, miswritten'
              }
              codes={codes}
              picked={picked}
              pick={setPicked}
            />
          )}
          {what === 'missing' && (
            <Form.Group controlId="byhand-reason" className="mb-2">
              <Form.Label className="mb-1">They mean</Form.Label>
              <Form.Select
                size="sm"
                value={reason}
                onChange={(event) =>
                  setReason(REASONS.find((known) => known === event.target.value) ?? 'other')
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
                onChange={(event) => setInto(event.target.value)}
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
          {what === 'universe' && (
            <>
              <Form.Group controlId="byhand-gate" className="mb-2">
                <Form.Label className="mb-1">The variable it hangs on</Form.Label>
                <Form.Control
                  size="sm"
                  list="byhand-gates"
                  value={gate}
                  autoComplete="off"
                  spellCheck={false}
                  onChange={(event) => {
                    setGate(event.target.value);
                    setShut(NONE);
                  }}
                />
                <datalist id="byhand-gates">
                  {summaries
                    .filter(({ name }) => !names.includes(name))
                    .map(({ name, label }) => (
                      <option key={name} value={name}>
                        {label}
                      </option>
                    ))}
                </datalist>
              </Form.Group>
              {gateKnown && (
                <CodePicker
                  id="byhand-shut"
                  title={`Codes of ${gate} at which it was not asked`}
                  codes={gateCodes}
                  picked={shut}
                  pick={setShut}
                />
              )}
            </>
          )}
          {what === 'role' && (
            <div role="radiogroup" aria-label="Role" className="mb-2">
              {ROLES.map((one) => (
                <Form.Check
                  key={one}
                  type="radio"
                  name="byhand-role"
                  id={`byhand-role-${one}`}
                  checked={role === one}
                  onChange={() => setRole(one)}
                  label={
                    <>
                      {one} <span className="soft">{ROLE_MEANS[one]}</span>
                    </>
                  }
                />
              ))}
            </div>
          )}
          {what === 'ask' && (
            <>
              <Form.Group controlId="byhand-question" className="mb-2">
                <Form.Label className="mb-1">The question</Form.Label>
                <Form.Control
                  as="textarea"
                  rows={3}
                  value={question}
                  onChange={(event) => setQuestion(event.target.value)}
                />
              </Form.Group>
              <CodePicker
                id="byhand-codes"
                title="Codes that it is about, if any"
                codes={codes}
                picked={picked}
                pick={setPicked}
              />
            </>
          )}
          <Form.Group controlId="byhand-why">
            <Form.Label className="mb-1">
              Because <span className="soft">(if you like)</span>
            </Form.Label>
            <Form.Control size="sm" value={why} onChange={(event) => setWhy(event.target.value)} />
          </Form.Group>
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
