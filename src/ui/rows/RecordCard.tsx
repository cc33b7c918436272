'use client';

import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { whole } from '../../core/handoff/words';
import type { RecordCard as Card } from '../../core/inspect/record';
import { countAgain, setRowsAside } from '../../store/decisions';
import { useSession } from '../../store/session';
import { ProblemText } from '../asking/ProblemText';
import { useAnswer } from '../asking/useAnswer';
import { press } from '../keys/table';
import { useInView } from '../sets/useInView';

/** One row with all its cells, codes and labels together. */
export function RecordCard() {
  const { record, current, summaries, state, aside: rowsAside } = useSession();
  const [search, setSearch] = useState('');
  // Until the next row is there the one before stays, so that nothing jumps.
  const { value, problem } = useAnswer('record', record === null ? null : [record]);
  const last = useRef<Card | null>(null);
  if (value) last.current = value;
  const [beyond, setBeyond] = useState(false);
  const card = record === null ? null : last.current;
  useEffect(() => {
    if (card) document.querySelector('.recordcard tr.at')?.scrollIntoView({ block: 'center' });
  }, [card?.row]);
  const aside = record !== null && rowsAside.has(record);
  const close = (): void => useSession.setState({ record: null });
  const go = (row: number): void => {
    if (card && row >= 0 && row < card.rows) useSession.setState({ record: row });
  };
  useEffect(() => {
    if (record === null) return;
    const onKey = (event: KeyboardEvent): void => {
      if ((event.target as HTMLElement).tagName === 'INPUT') return;
      const meant = press('record', event, {
        rowBefore: () => go(record - 1),
        rowAfter: () => go(record + 1),
        cellInto: () => useSession.setState({ asking: 'into', chosen: new Set() }),
      });
      if (meant) event.preventDefault();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
  const { isInside, outside } = useInView();
  const labels = new Map(summaries.map(({ name, label }) => [name, label]));
  const word = search.toLowerCase();
  const cells =
    card?.cells.filter(
      ({ name, text, label }) =>
        (beyond || isInside(name)) &&
        (word === '' ||
          `${name} ${labels.get(name) ?? ''} ${text} ${label ?? ''}`.toLowerCase().includes(word)),
    ) ?? [];
  return (
    <Modal show={record !== null} onHide={close} size="lg" aria-labelledby="record-title" scrollable>
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="record-title" className="fs-5">
          {card ? (
            <>
              Row {whole(card.rowInFile + 1)} of {card.file}
              {card.line !== null && <span className="soft">, line {whole(card.line)}</span>}
            </>
          ) : (
            'Row'
          )}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body className="recordcard">
        {problem && <ProblemText problem={problem} />}
        <div className="d-flex gap-2 mb-2 align-items-center">
          <Button size="sm" variant="quiet" disabled={record === 0} onClick={() => go((record ?? 0) - 1)}>
            Row before <kbd>←</kbd>
          </Button>
          <Button
            size="sm"
            variant="quiet"
            disabled={!card || record === card.rows - 1}
            onClick={() => go((record ?? 0) + 1)}
          >
            Row after <kbd>→</kbd>
          </Button>
          <Form.Control
            size="sm"
            style={{ maxWidth: 220 }}
            type="search"
            placeholder="Find in this row"
            aria-label="Find in this row"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          {card && (
            <Button
              size="sm"
              variant="quiet"
              onClick={() => void (aside ? countAgain(card.row) : setRowsAside([card.row], null))}
            >
              {aside ? 'Count this row again' : 'Set this row aside'}
            </Button>
          )}
          {outside > 0 && (
            <Button size="sm" variant="quiet" aria-pressed={beyond} onClick={() => setBeyond(!beyond)}>
              {beyond ? 'Only what is in view' : `${whole(outside)} more out of view`}
            </Button>
          )}
          <span className="soft">
            {card &&
              `${whole(card.row + 1)} of all ${whole(card.rows)} rows${aside ? '; set aside, it counts nowhere' : ''}`}
          </span>
        </div>
        <table className="grounds">
          <thead>
            <tr>
              <th scope="col">Variable</th>
              <th scope="col">Cell and label</th>
            </tr>
          </thead>
          <tbody>
            {cells.map(({ name, text, label, standing }) => (
              <tr
                key={name}
                onClick={() => useSession.setState({ current: name })}
                className={`${name === current ? 'at' : ''}${standing === 'missing' || standing === 'not-asked' ? ' missing' : ''}`}
              >
                <td>
                  <span className="code">{state.called.get(name)?.name ?? name}</span>{' '}
                  <span className="soft">{labels.get(name)}</span>
                </td>
                <td>
                  {text.trim() === '' ? (
                    <span className="soft">blank</span>
                  ) : (
                    <>
                      <span className="code">{text}</span> {label}
                    </>
                  )}
                  {standing === 'missing'
                    ? ' (missing)'
                    : standing === 'not-asked'
                      ? ' (not asked)'
                      : standing === 'unreadable'
                        ? ' (unreadable)'
                        : ''}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Modal.Body>
    </Modal>
  );
}
