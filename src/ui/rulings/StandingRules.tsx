'use client';

import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import {
  sameRule,
  standingRulesSchema,
  type StandingRules as Document,
} from '../../core/flags/standing-rules';
import { standingFrom } from '../../core/log/standing';
import { counted } from '../../core/handoff/words';
import { useParts } from '../../store/session';
import { standBy } from '../../store/standing';
import { download } from '../handoff/download';
import { StandingForm } from './StandingForm';
import { StandingTable } from './StandingTable';

const identity = (): string => crypto.randomUUID();

/** What a person knows of an archive's codes: written down once, kept apart from extracts, proposed in each. */
export function StandingRules({ shown, close }: { shown: boolean; close: () => void }) {
  const { standing, log } = useParts('standing', 'log');
  const [problem, setProblem] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (shown) setProblem(null);
  }, [shown]);
  const fromHere = standingFrom(log, standing, identity);
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
    <Modal
      show={shown}
      onHide={close}
      size="lg"
      aria-labelledby="standing-title"
      scrollable
      animation={false}
    >
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
        <StandingTable />
        <StandingForm />
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
