'use client';

import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { whole } from '../../core/handoff/words';
import { useAnswer } from '../asking/useAnswer';
import { decide } from '../../store/decisions';

interface Code {
  code: string;
  label: string | null;
  count: number;
}

/** The order of a variable's categories, lowest first: moved by keys, by buttons, or by dragging. */
export function OrderDialog({ shown, names, close }: { shown: boolean; names: string[]; close: () => void }) {
  const [codes, setCodes] = useState<Code[]>([]);
  const [first, setFirst] = useState('');
  const dragged = useRef<number | null>(null);
  const list = useRef<HTMLOListElement>(null);
  const { value: profile } = useAnswer('profile', shown ? [names[0]] : null);
  useEffect(() => {
    if (!profile) return;
    const found = profile.variable.frequencies
      .filter(({ missing }) => !missing)
      .map(({ code, label, count }) => ({ code, label, count }));
    setCodes(found);
    setFirst(found.map(({ code }) => code).join('\n'));
  }, [profile]);
  const move = (from: number, to: number): void => {
    if (to < 0 || to >= codes.length || from === to) return;
    const next = [...codes];
    next.splice(to, 0, ...next.splice(from, 1));
    setCodes(next);
    setTimeout(() => list.current?.querySelectorAll<HTMLElement>('li')[to]?.focus());
  };
  const save = (): void => {
    close();
    if (codes.map(({ code }) => code).join('\n') !== first)
      void decide({ type: 'order-codes', variables: names, codes: codes.map(({ code }) => code) });
  };
  return (
    <Modal show={shown} onHide={close} aria-labelledby="order-title" scrollable animation={false}>
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="order-title" className="fs-5">
          Order of the codes of{' '}
          {names.length === 1 ? <span className="code">{names[0]}</span> : `these ${names.length} variables`}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p className="soft">
          The lowest first. <kbd>Alt ↑</kbd> <kbd>Alt ↓</kbd> move the code at hand; it can also be dragged.
        </p>
        <ol className="orderlist" ref={list}>
          {codes.map(({ code, label, count }, i) => (
            <li
              key={code}
              tabIndex={0}
              draggable
              onDragStart={() => {
                dragged.current = i;
              }}
              onDragOver={(event) => event.preventDefault()}
              onDrop={() => dragged.current !== null && move(dragged.current, i)}
              onKeyDown={(event) => {
                const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
                if (!step) return;
                event.preventDefault();
                if (event.altKey) move(i, i + step);
                else list.current?.querySelectorAll<HTMLElement>('li')[i + step]?.focus();
              }}
            >
              <span>
                <span className="code">{code}</span> {label}
              </span>
              <span className="n soft">{whole(count)}</span>
              <span>
                <button
                  type="button"
                  className="btn-bare"
                  tabIndex={-1}
                  disabled={i === 0}
                  aria-label={`Move ${code} up`}
                  onClick={() => move(i, i - 1)}
                >
                  ↑
                </button>
                <button
                  type="button"
                  className="btn-bare"
                  tabIndex={-1}
                  disabled={i === codes.length - 1}
                  aria-label={`Move ${code} down`}
                  onClick={() => move(i, i + 1)}
                >
                  ↓
                </button>
              </span>
            </li>
          ))}
        </ol>
      </Modal.Body>
      <Modal.Footer className="justify-content-start">
        <Button onClick={save}>Keep this order</Button>
        <Button variant="quiet" onClick={() => setCodes([...codes].reverse())}>
          Turn it round
        </Button>
        <Button variant="quiet" onClick={close}>
          Leave as it is
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
