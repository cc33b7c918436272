'use client';

import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { REASONS, REASON_NAMES, type Reason } from '../../core/extract/words';
import {
  fits,
  sameRule,
  standingRulesSchema,
  STANDING_RULE,
  type StandingRule,
  type StandingRules as Document,
} from '../../core/flags/standing-rules';
import { standingFrom } from '../../core/log/standing';
import { counted, whole } from '../../core/handoff/words';
import { useSession } from '../../store/session';
import { standBy } from '../../store/standing';
import { download } from '../handoff/download';

const identity = (): string => crypto.randomUUID();

/** What a person knows of an archive's codes: written down once, kept apart from extracts, proposed in each. */
export function StandingRules({ shown, close }: { shown: boolean; close: () => void }) {
  const { standing, log, flags, summaries } = useSession();
  const [code, setCode] = useState('');
  const [reason, setReason] = useState<Reason>('not-asked');
  const [names, setNames] = useState('*');
  const [note, setNote] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (shown) setProblem(null);
  }, [shown]);
  const fromHere = standingFrom(log, standing, identity);
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
    void standBy([...standing, { ...typed, id: identity() }]);
    setCode('');
    setNote('');
    document.getElementById('standing-code')?.focus();
  };
  const take = async (given: File): Promise<void> => {
    try {
      const read = standingRulesSchema.safeParse(JSON.parse(await given.text()));
      if (!read.success)
        throw new Error(
          `“${read.error.issues[0].path.join('.') || 'the document'}” is not as it should be: ${read.error.issues[0].message}`,
        );
      const fresh = read.data.rules
        .filter((rule) => !standing.some((known) => sameRule(known, rule)))
        .map((rule) => ({ ...rule, id: identity() }));
      await standBy([...standing, ...fresh]);
      setProblem(
        fresh.length ? null : `${given.name}: all its ${read.data.rules.length} rules are here already.`,
      );
    } catch (cause) {
      setProblem(
        `${given.name}: these are no standing rules that were exported here (${(cause as Error).message}). Nothing was changed; choose the file that “Export” saved.`,
      );
    }
  };
  const exported = (): Document => ({ format: 'dig-first-standing-rules', version: 1, rules: standing });

  return (
    <Modal show={shown} onHide={close} size="lg" aria-labelledby="standing-title" scrollable>
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="standing-title" className="fs-5">
          Standing rules
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p className="soft">
          What you know of an archive’s codes, whatever the extract: each rule is proposed among the flags
          wherever a variable holds its code, and nothing changes before you rule.
        </p>
        {problem && (
          <div className="alert alert-warning" role="alert">
            {problem}
          </div>
        )}
        {standing.length > 0 && (
          <table className="grounds mb-3">
            <thead>
              <tr>
                <th scope="col">Code</th>
                <th scope="col">Is</th>
                <th scope="col">In</th>
                <th scope="col">Your words</th>
                <th scope="col" className="n">
                  Proposed here
                </th>
                <th>
                  <span className="visually-hidden">Remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {standing.map((rule) => {
                const here = flags.filter(
                  (flag) =>
                    flag.rule === STANDING_RULE &&
                    flag.codes[0] === rule.code &&
                    flag.reason === rule.reason &&
                    fits(flag.variables[0], rule.names),
                ).length;
                return (
                  <tr key={rule.id}>
                    <td className="code">{rule.code}</td>
                    <td>{REASON_NAMES[rule.reason]}</td>
                    <td className={rule.names === '*' ? '' : 'code'}>
                      {rule.names === '*' ? 'every variable' : rule.names}
                    </td>
                    <td>{rule.note}</td>
                    <td className="n">{here ? counted(here, 'variable') : 'none'}</td>
                    <td>
                      <button
                        type="button"
                        className="btn-bare"
                        aria-label={`Remove the rule on ${rule.code}`}
                        onClick={() => void standBy(standing.filter(({ id }) => id !== rule.id))}
                      >
                        Remove
                      </button>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
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
          A star stands for any signs: <span className="code">warm_*, own_*</span>. These names:{' '}
          {whole(about)} of {counted(summaries.length, 'variable')} here.
        </p>
      </Modal.Body>
      <Modal.Footer className="justify-content-start">
        <Button
          variant="quiet"
          disabled={standing.length === 0}
          onClick={() =>
            download('standing-rules.json', 'application/json', `${JSON.stringify(exported(), null, 1)}\n`)
          }
        >
          Export
        </Button>
        <Button variant="quiet" onClick={() => file.current?.click()}>
          Import…
        </Button>
        <input
          type="file"
          ref={file}
          hidden
          accept=".json,application/json"
          aria-label="Standing rules to import"
          onChange={(event) => {
            const [given] = event.target.files ?? [];
            event.target.value = '';
            if (given) void take(given);
          }}
        />
        {fromHere.length > 0 && (
          <Button variant="quiet" onClick={() => void standBy([...standing, ...fromHere])}>
            Take over the {counted(fromHere.length, 'code')} declared missing here
          </Button>
        )}
      </Modal.Footer>
    </Modal>
  );
}
