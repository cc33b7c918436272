'use client';

import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { counted, whole } from '../../core/handoff/words';
import type { Sievable } from '../../core/inspect/questions';
import { useSession, useParts } from '../../store/session';
import { addCondition, partsAtHand, putInForce, replaceCondition } from '../../store/sieve';
import { useAnswer } from '../asking/useAnswer';
import { CodePicker } from '../rulings/CodePicker';
import { conditionOf, formOf, TESTS, type ConditionForm, type Test } from './conditionForm';
import { PickVariable } from './PickVariable';
import { Stretch } from './Stretch';

const NONE: ConditionForm = { test: 'codes', codes: new Set(), from: '', to: '', text: '', drop: false };

/** Makes a condition on rows by picking: codes, a stretch of values, an answer or its absence, a text. */
export function ConditionDialog() {
  const { asking, asked } = useParts('asking', 'asked');
  const shown = asking === 'condition';
  const [variable, setVariable] = useState<string | null>(null);
  const [form, setForm] = useState<ConditionForm>(NONE);
  const change = (part: Partial<ConditionForm>): void => setForm((now) => ({ ...now, ...part }));
  const { value: about } = useAnswer('sievable', shown && variable !== null ? [variable] : null);
  const [filled, setFilled] = useState(false);
  useEffect(() => {
    if (!shown) return;
    const given = asked.condition && formOf(asked.condition);
    setVariable(given?.variable ?? asked.variable);
    setForm(given?.form ?? NONE);
    setFilled(given !== null && given !== undefined);
  }, [shown, asked]);
  // What suits the variable stands first, unless a test was chosen already.
  useEffect(() => {
    if (about && !filled) change({ ...NONE, test: suiting(about), drop: form.drop });
  }, [about?.name]);
  const { parts } = partsAtHand();
  const made = variable !== null && about ? conditionOf(form, about) : null;
  const condition = made && 'condition' in made ? made.condition : null;
  const others = parts.filter(({ id }) => id !== asked.part);
  const { value: preview } = useAnswer(
    'preview',
    condition ? [[...others, { id: 'this', condition, on: true }]] : null,
    80,
  );
  const told = preview?.parts.find(({ id }) => id === 'this');
  const close = (): void => {
    useSession.setState({ asking: null });
    document.querySelector<HTMLElement>('.recordtable, .ledger, .flaglist')?.focus();
  };
  const take = (now: boolean): void => {
    if (!condition) return;
    if (asked.part === null) addCondition(condition);
    else replaceCondition(asked.part, condition);
    close();
    if (now) void putInForce();
  };
  return (
    <Modal
      show={shown}
      onHide={close}
      size="lg"
      aria-labelledby="condition-title"
      animation={false}
      scrollable
      onKeyDown={(event: React.KeyboardEvent) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) take(true);
      }}
    >
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="condition-title" className="fs-5">
          {asked.part === null ? 'A condition' : 'Change the condition'}
          {about && (
            <>
              {' '}
              on <span className="code">{about.name}</span> <span className="soft fs-6">{about.label}</span>
            </>
          )}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body className="conditionform">
        {variable === null ? (
          <PickVariable pick={setVariable} />
        ) : (
          about && (
            <Form
              id="condition-form"
              onSubmit={(event) => {
                event.preventDefault();
                take(false);
              }}
            >
              <div className="whats" role="radiogroup" aria-label="What is asked">
                {(Object.entries(TESTS) as [Test, string][]).map(([key, says]) => (
                  <Form.Check
                    key={key}
                    type="radio"
                    name="condition-test"
                    id={`condition-${key}`}
                    label={says}
                    checked={form.test === key}
                    disabled={key === 'stretch' && about.storage === 'text'}
                    onChange={() => (setFilled(true), change({ test: key }))}
                  />
                ))}
                <Form.Check
                  type="switch"
                  id="condition-drop"
                  className="mt-2"
                  label="Drop these rows instead of keeping them"
                  checked={form.drop}
                  onChange={(event) => change({ drop: event.target.checked })}
                />
                <button
                  type="button"
                  className="btn-bare mt-2"
                  onClick={() => (setVariable(null), setFilled(false))}
                >
                  Another variable
                </button>
              </div>
              <div>
                <Asked about={about} form={form} change={change} />
              </div>
            </Form>
          )
        )}
      </Modal.Body>
      <Modal.Footer className="justify-content-start">
        <Button type="submit" form="condition-form" disabled={!condition}>
          {asked.part === null ? 'Add it to the sieve' : 'Change it'}
        </Button>
        <Button variant="quiet" disabled={!condition} onClick={() => take(true)}>
          and put in force <kbd>Ctrl Enter</kbd>
        </Button>
        <span className="soft" role="status">
          {made && 'says' in made
            ? made.says
            : told
              ? `${told.says}: keeps ${whole(told.keeps)}, drops ${whole(told.drops)}${others.length ? `; with the others ${whole(preview?.rows.kept ?? 0)} are left` : ''}. Nothing is counted otherwise until it is in force.`
              : ''}
        </span>
      </Modal.Footer>
    </Modal>
  );
}

/** Categories are picked by their codes, quantities and dates by a stretch, prose by what it holds. */
function suiting({ kind, storage, codes }: Sievable): Test {
  if (storage !== 'text' && storage !== 'empty' && ['count', 'continuous', 'date'].includes(kind))
    return 'stretch';
  return codes.length <= 200 ? 'codes' : 'contains';
}

/** What the test that is chosen asks for. */
function Asked({
  about,
  form,
  change,
}: {
  about: Sievable;
  form: ConditionForm;
  change: (part: Partial<ConditionForm>) => void;
}) {
  return (
    <>
      {form.test === 'codes' && (
        <CodePicker
          id="condition-codes"
          title="Rows that hold one of"
          codes={about.codes}
          picked={form.codes}
          pick={(codes) => change({ codes })}
          autoFocus
        />
      )}
      {form.test === 'stretch' && <Stretch about={about} form={form} change={change} />}
      {form.test === 'contains' && (
        <Form.Group controlId="condition-text">
          <Form.Label>Rows whose cell contains, whatever the case</Form.Label>
          <Form.Control
            autoFocus
            value={form.text}
            onChange={(event) => change({ text: event.target.value })}
          />
        </Form.Group>
      )}
      {(form.test === 'answered' || form.test === 'unanswered') && (
        <p>
          {whole(about.counts.valid)} of {counted(about.counts.all, 'row')} hold a valid answer;{' '}
          {whole(about.counts.all - about.counts.valid)} are missing, not asked, blank or unreadable.
        </p>
      )}
    </>
  );
}
