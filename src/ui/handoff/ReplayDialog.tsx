'use client';

import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { counted, whole } from '../../core/handoff/words';
import type { Replayed } from '../../core/inspect/replay';
import { holdLog, takeEarlier, type Earlier } from '../../store/replay';
import { useSession } from '../../store/session';
import { Quiet } from '../frame/Quiet';

/** Chooses an earlier dig log to be held against the open extract. */
export function HoldLog() {
  const file = useRef<HTMLInputElement>(null);
  return (
    <>
      <Quiet does={() => file.current?.click()}>Lay an earlier dig log over it…</Quiet>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="File of an earlier dig log"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = '';
          if (chosen) void holdLog(chosen);
        }}
      />
    </>
  );
}

/** What an earlier log comes to over this extract: all that fits is taken in one stroke, the rest one by one. */
export function ReplayDialog() {
  const { asking, earlier } = useSession();
  const close = (): void => useSession.setState({ asking: null, earlier: null });
  return (
    <Modal
      show={asking === 'replay' && earlier !== null}
      onHide={close}
      size="lg"
      aria-labelledby="replay-title"
      scrollable
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
          about="They are taken unless you leave them out."
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
        {lines.map(({ entry, says, why }) => (
          <li key={entry}>
            {wanted ? (
              <label>
                <input type="checkbox" checked={wanted.has(entry)} onChange={() => toggle(entry)} /> {says}
                {why && <strong> ({why})</strong>}
              </label>
            ) : (
              <>
                {says}
                {why && <strong> ({why})</strong>}
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
