'use client';

import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { counted, whole } from '../../core/handoff/words';
import type { Beside, Lone } from '../../core/inspect/beside';
import { useSession, useParts } from '../../store/session';

/** The open extract beside an earlier one: what came, what went, what is another. */
export function BesideDialog() {
  const { asking, beside } = useParts('asking', 'beside');
  const close = (): void => useSession.setState({ asking: null, beside: null });
  return (
    <Modal
      show={asking === 'beside' && beside !== null}
      onHide={close}
      size="xl"
      scrollable
      aria-labelledby="beside-title"
      animation={false}
    >
      {beside && <Held beside={beside} close={close} />}
    </Modal>
  );
}

function Held({ beside, close }: { beside: Beside; close: () => void }) {
  const { earlier, later, came, went, changed, same } = beside;
  const [search, setSearch] = useState('');
  const wanted = (texts: readonly (string | null)[]): boolean =>
    texts.some((text) => text?.toLowerCase().includes(search.trim().toLowerCase()));
  const go = (name: string): void => {
    close();
    useSession.setState({ station: 'inventory', current: name, search: '' });
  };
  const altered = changed.filter(({ name, label, says }) => wanted([name, label, ...says]));
  const lone = (all: readonly Lone[]): Lone[] => all.filter(({ name, label }) => wanted([name, label]));
  return (
    <>
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="beside-title" className="fs-5">
          {later.name} beside {earlier.name}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body tabIndex={0}>
        <p className="mb-2">
          {later.name}: {counted(later.rows, 'row')}, {counted(later.variables, 'variable')}; {earlier.name}:{' '}
          {counted(earlier.rows, 'row')}, {counted(earlier.variables, 'variable')}, each under its own
          rulings. {counted(same, 'variable')} of both {same === 1 ? 'is' : 'are'} the same as far as is seen.
        </p>
        <Form.Control
          size="sm"
          className="mb-3"
          placeholder="Narrow to names, labels or what changed"
          aria-label="Narrow what is told"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <section className="mb-3">
          <h3 className="fs-6">{whole(changed.length)} changed</h3>
          <ul className="besidelines">
            {altered.map(({ name, label, says }) => (
              <li key={name}>
                <Name name={name} label={label} go={() => go(name)} />
                <ul>
                  {says.map((one) => (
                    <li key={one}>{one}</li>
                  ))}
                </ul>
              </li>
            ))}
          </ul>
        </section>
        <Lones
          title={`${whole(came.length)} came`}
          like="it may be what was called"
          all={lone(came)}
          go={go}
        />
        <Lones
          title={`${whole(went.length)} went`}
          like="it may be what is called"
          all={lone(went)}
          go={null}
        />
      </Modal.Body>
    </>
  );
}

function Lones({
  title,
  like,
  all,
  go,
}: {
  title: string;
  like: string;
  all: readonly Lone[];
  /** Shows a variable that the open extract has. */
  go: ((name: string) => void) | null;
}) {
  return (
    <section className="mb-3">
      <h3 className="fs-6">{title}</h3>
      <ul className="besidelines">
        {all.map((one) => (
          <li key={one.name}>
            <Name name={one.name} label={one.label} go={go && (() => go(one.name))} />{' '}
            <span className="soft">{one.kind}</span>
            {one.like !== null && (
              <>
                ; {like} <span className="code">{one.like}</span>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Name({ name, label, go }: { name: string; label: string | null; go: (() => void) | null }) {
  return (
    <>
      {go ? (
        <button type="button" className="btn-bare code" onClick={go} title={`Show ${name}`}>
          {name}
        </button>
      ) : (
        <span className="code">{name}</span>
      )}{' '}
      {label}
    </>
  );
}
