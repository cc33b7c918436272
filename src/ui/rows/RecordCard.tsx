'use client';

import { Fragment, useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { whole } from '../../core/handoff/words';
import type { Cell, RecordCard as Card } from '../../core/inspect/record';
import type { State } from '../../core/log/fold';
import { countAgain, setRowsAside } from '../../store/decisions';
import { useSession, useParts } from '../../store/session';
import { ProblemText } from '../asking/ProblemText';
import { useAnswer } from '../asking/useAnswer';
import { press } from '../keys/table';
import { useInView } from '../sets/useInView';

/** One row with all its cells, codes and labels together. */
export function RecordCard() {
  const {
    record,
    current,
    summaries,
    state,
    aside: rowsAside,
  } = useParts('record', 'current', 'summaries', 'state', 'aside');
  const [search, setSearch] = useState('');
  // Until the next row is there the one before stays, so that nothing jumps.
  const { value, problem } = useAnswer('record', record === null ? null : [record]);
  const last = useRef<Card | null>(null);
  if (value) last.current = value;
  if (record === null) last.current = null;
  const [beyond, setBeyond] = useState(false);
  const card = record === null ? null : last.current;
  useEffect(() => {
    if (card) document.querySelector('.recordcard tr.at')?.scrollIntoView({ block: 'center' });
  }, [card?.at]);
  const row = card?.row ?? null;
  const aside = row !== null && rowsAside.has(row);
  const close = (): void => useSession.setState({ record: null });
  const go = (by: 1 | -1): void => {
    if (record === null || !card) return;
    const { whole: listing, place } = typeof record === 'number' ? { whole: null, place: record } : record;
    const at = place + by;
    if (at < 0 || at >= card.of) return;
    useSession.setState({ record: listing === null ? at : { whole: listing, place: at } });
  };
  /** Sets the row aside, or back; among all rows it is listed no more then, and its card stays. */
  const asideOrBack = (): void => {
    if (row === null) return;
    useSession.setState({ record: row });
    void (aside ? countAgain([row]) : setRowsAside([row], null));
  };
  useEffect(() => {
    if (record === null) return;
    const onKey = (event: KeyboardEvent): void => {
      if ((event.target as HTMLElement).tagName === 'INPUT') return;
      const meant = press('record', event, {
        rowBefore: () => go(-1),
        rowAfter: () => go(1),
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
  const groups = bySet(cells, state);
  return (
    <Modal
      show={record !== null}
      onHide={close}
      size="lg"
      aria-labelledby="record-title"
      scrollable
      animation={false}
    >
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
          <Button size="sm" variant="quiet" disabled={!card || card.at === 0} onClick={() => go(-1)}>
            Row before <kbd>←</kbd>
          </Button>
          <Button size="sm" variant="quiet" disabled={!card || card.at === card.of - 1} onClick={() => go(1)}>
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
          {row !== null && (
            <Button size="sm" variant="quiet" onClick={asideOrBack}>
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
              `${whole(card.place)} of all ${whole(card.all)} rows${aside ? '; set aside, it counts nowhere' : row === null ? '; not held, to look at only' : ''}`}
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
            {groups.map(({ set, cells: own }) => (
              <Fragment key={set ?? ''}>
                {set !== null && (
                  <tr className="group">
                    <th colSpan={2} scope="rowgroup">
                      {set}
                    </th>
                  </tr>
                )}
                {own.map((cell) => (
                  <CellLine
                    key={cell.name}
                    cell={cell}
                    at={cell.name === current}
                    called={state.called.get(cell.name)?.name ?? cell.name}
                    label={labels.get(cell.name) ?? null}
                  />
                ))}
              </Fragment>
            ))}
          </tbody>
        </table>
      </Modal.Body>
    </Modal>
  );
}

/** Cells by the sets that a person made, each under the first that it stands in; those in none last. */
function bySet(
  cells: readonly Cell[],
  { sets }: Pick<State, 'sets'>,
): { set: string | null; cells: Cell[] }[] {
  const left = new Map(cells.map((cell) => [cell.name, cell]));
  const groups = [...sets.values()].flatMap(({ name, variables }) => {
    const own = variables.flatMap((variable) => left.get(variable) ?? []);
    for (const { name: taken } of own) left.delete(taken);
    return own.length ? [{ set: name as string | null, cells: own }] : [];
  });
  const rest = [...left.values()];
  return rest.length ? [...groups, { set: groups.length ? 'In no set' : null, cells: rest }] : groups;
}

function CellLine({
  cell: { name, text, label: meaning, standing, received },
  at,
  called,
  label,
}: {
  cell: Cell;
  at: boolean;
  called: string;
  label: string | null;
}) {
  return (
    <tr
      onClick={() => useSession.setState({ current: name })}
      className={`${at ? 'at' : ''}${standing === 'missing' || standing === 'not-asked' ? ' missing' : ''}`}
    >
      <td>
        <span className="code">{called}</span> <span className="soft">{label}</span>
      </td>
      <td>
        {text.trim() === '' ? (
          <span className="soft">blank</span>
        ) : (
          <>
            <span className="code">{text}</span> {meaning}
          </>
        )}
        {standing === 'missing'
          ? ' (missing)'
          : standing === 'not-asked'
            ? ' (not asked)'
            : standing === 'unreadable'
              ? ' (unreadable)'
              : ''}
        {received !== undefined && <span className="soft"> received as “{received}”</span>}
      </td>
    </tr>
  );
}
