'use client';

import { useRef } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import { counted } from '../../core/handoff/words';
import { logOfFile, logOfKept, type EarlierLog } from '../../store/replay';
import { useSession } from '../../store/session';

/** Chooses a dig log: of an extract that this browser keeps, or of a file. */
export function ChooseLog({
  title,
  id,
  besides = false,
  take,
}: {
  title: string;
  id: string;
  /** Whether it is for other data than the open extract's, whose own log may be chosen then. */
  besides?: boolean;
  take: (earlier: EarlierLog) => void;
}) {
  const file = useRef<HTMLInputElement>(null);
  const kept = useSession((session) => session.kept);
  const open = useSession((session) => session.id);
  const others = kept.filter((one) => besides || one.id !== open);
  const taken = (found: EarlierLog | null): void => void (found && take(found));
  return (
    <>
      <Dropdown as="span" className="d-inline-block">
        <Dropdown.Toggle variant="quiet" size="sm" id={id}>
          {title}
        </Dropdown.Toggle>
        <Dropdown.Menu className="loglist">
          {others.map((one) => (
            <Dropdown.Item key={one.id} onClick={() => void logOfKept(one.id).then(taken)}>
              {one.name}{' '}
              <span className="soft">
                {counted(one.rows, 'row')}, {counted(one.variables, 'variable')}, kept{' '}
                {one.keptAt.slice(0, 10)}
              </span>
            </Dropdown.Item>
          ))}
          {others.length > 0 && <Dropdown.Divider />}
          <Dropdown.Item onClick={() => file.current?.click()}>From a file…</Dropdown.Item>
        </Dropdown.Menu>
      </Dropdown>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="File of an earlier dig log"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = '';
          if (chosen) void logOfFile(chosen).then(taken);
        }}
      />
    </>
  );
}
