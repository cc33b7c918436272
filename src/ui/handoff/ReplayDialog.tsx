'use client';

import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { counted, whole } from '../../core/handoff/words';
import type { Replayed } from '../../core/inspect/replay';
import { holdLog, takeEarlier, type Earlier } from '../../store/replay';
import { useSession, useParts } from '../../store/session';
import { ChooseLog } from './ChooseLog';

/** Chooses an earlier dig log, of an extract that is kept here or of a file, to be held against the open extract. */
export function HoldLog() {
  return (
    <ChooseLog
      title="Lay an earlier dig log over it…"
      take={(earlier) => void holdLog(earlier)}
      id="hold-log"
    />
  );
}

/** What an earlier log comes to over this extract: all that fits is taken in one stroke, the rest one by one. */
export function ReplayDialog() {
  const { asking, earlier } = useParts('asking', 'earlier');
  const close = (): void => useSession.setState({ asking: null, earlier: null });
  return (
    <Modal
      show={asking === 'replay' && earlier !== null}
      onHide={close}
      size="lg"
      aria-labelledby="replay-title"
      scrollable
      animation={false}
    >
      {earlier && <Held key={earlier.name} earlier={earlier} close={close} />}
    </Modal>
  );
}

function Held({ earlier: { name, replay }, close }: { earlier: Earlier; close: () => void }) {
  const { fits, changed, misfits } = replay;
  const [wanted, setWanted] = useState<ReadonlySet<string>>(new Set(fits.map(({ entry }) => entry)));
  useEffect(() => setWanted(new Set(fits.map(({ entry }) => entry))), [replay]);
  const toggle = (entry: string): void => {
    const next = new Set(wanted);
    if (!next.delete(entry)) next.add(entry);
    setWanted(next);
  };
  return (
    <>
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="replay-title" className="fs-5">
          {name}: {counted(fits.length + changed.length + misfits.length, 'ruling')} of an earlier log
        </Modal.Title>
      </Modal.Header>
      <Modal.Body tabIndex={0}>
        <Lines
          title={`${whole(fits.length)} fit as they are`}
          about="They are taken unless you leave them out. Rows are those of this extract that each bears on."
          lines={fits}
          wanted={wanted}
          toggle={toggle}
        />
        <Lines
          title={`${whole(changed.length)} fit, and something is another here`}
          about="Look at each, and tick those that hold all the same."
          lines={changed}
          wanted={wanted}
          toggle={toggle}
        />
        <Lines
          title={`${whole(misfits.length)} do not fit`}
          about="They cannot be taken."
          lines={misfits}
          wanted={null}
          toggle={toggle}
        />
      </Modal.Body>
      <Modal.Footer className="justify-content-start">
        <Button
          autoFocus
          disabled={wanted.size === 0}
          onClick={() => {
            void takeEarlier(wanted);
            close();
          }}
        >
          Take {counted(wanted.size, 'ruling')}
        </Button>
        <span className="soft">Each becomes an entry of this log and can be taken back.</span>
      </Modal.Footer>
    </>
  );
}

function Lines({
  title,
  about,
  lines,
  wanted,
  toggle,
}: {
  title: string;
  about: string;
  lines: readonly Replayed[];
  /** Ids that are ticked; `null` where none can be. */
  wanted: ReadonlySet<string> | null;
  toggle: (entry: string) => void;
}) {
  if (lines.length === 0) return null;
  return (
    <section className="mb-3">
      <h3 className="fs-6 mb-0">{title}</h3>
      <p className="soft mb-1">{about}</p>
      <ul className="replaylines">
        {lines.map((line) => (
          <li key={line.entry}>
            {wanted ? (
              <label>
                <input type="checkbox" checked={wanted.has(line.entry)} onChange={() => toggle(line.entry)} />{' '}
                <Line line={line} />
              </label>
            ) : (
              <Line line={line} />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Line({ line: { says, why, rows } }: { line: Replayed }) {
  return (
    <>
      {says}
      {rows !== null && <span className="soft"> {counted(rows, 'row')}</span>}
      {why && <strong> ({why})</strong>}
    </>
  );
}
