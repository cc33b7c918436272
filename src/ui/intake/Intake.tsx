'use client';

import { useEffect, useRef } from 'react';
import Button from 'react-bootstrap/Button';
import { askTable } from '../../store/database';
import { readDemo } from '../../store/reading';
import { useSession } from '../../store/session';
import { Before } from './Before';
import { KeptList } from './KeptList';
import { Received } from './Received';
import { useWaiting } from './useWaiting';

/** Where files come in: drop or choose, look at the first rows, change a wrong guess, read. */
export function Intake({ dropped }: { dropped: File[] }) {
  const files = useWaiting();
  const picker = useRef<HTMLInputElement>(null);
  const opened = useSession((session) => session.opened);
  const pick = (): void => picker.current?.click();
  useEffect(() => {
    if (dropped.length) files.bring(dropped);
  }, [dropped]);
  const waits = files.plan.handed.length > 0;
  return (
    <>
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        data-testid="files"
        aria-label="Files of an extract"
        onChange={(event) => {
          files.bring([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      {waits && <Before files={files} opened={opened} pick={pick} />}
      {opened && !waits && <Received opened={opened} pick={pick} />}
      {!waits && (
        <section className="groundbreaking">
          <h2>{opened ? 'Bring another extract' : 'Bring an extract'}</h2>
          <p>
            Drop the data files here, with their codebook if there is one: delimited or fixed-width text,
            workbooks, JSON records, Parquet, plain, gzip or zip; DDI, Table Schema, CSV on the Web metadata,
            or a table of codes. What was handed off before opens with its rulings. The files stay on this
            machine and are never changed.
          </p>
          <div className="d-flex flex-wrap gap-2 align-items-center">
            <Button onClick={pick}>Choose files…</Button>
            <Button variant="quiet" onClick={() => askTable(null)}>
              From a database…
            </Button>
            <Button variant="quiet" onClick={() => void readDemo()}>
              Open the demo: the Ostrey Upkeep Panel
            </Button>
            <a className="btn-bare" href="/demo/upkeep.zip" download>
              Save its files instead
            </a>
          </div>
          {!opened && (
            <ol className="path">
              <li>
                <strong>Intake.</strong> See how each file is understood before it is read, and change what
                was guessed wrongly.
              </li>
              <li>
                <strong>Inventory.</strong> Every variable in one line: name, label, kind, make-up,
                distribution. Kinds are presumed, with reasons, until you confirm them.
              </li>
              <li>
                <strong>Flags.</strong> Suspicious codes with their evidence: declare them missing or keep
                them as valid.
              </li>
              <li>
                <strong>Sets.</strong> What belongs together: the archive’s groups, proposals with their
                reasons, your own. Put some in view and the rest is out of the way.
              </li>
              <li>
                <strong>Rows.</strong> Single records, codes beside labels; keep those that belong, and see
                which condition drops whom.
              </li>
              <li>
                <strong>Cross-checks.</strong> One variable against another, or against all: what stands out,
                whether a skip holds. Trial recodes touch no data.
              </li>
              <li>
                <strong>Handoff.</strong> The chosen variables and rows in open forms, an annotated codebook,
                a report to read and the record of every decision.
              </li>
            </ol>
          )}
        </section>
      )}
      {!waits && <KeptList />}
    </>
  );
}
