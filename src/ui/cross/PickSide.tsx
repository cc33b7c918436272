'use client';

import { useEffect, useMemo, useState } from 'react';
import Modal from 'react-bootstrap/Modal';
import type { Summary } from '../../core/inspect/summary';
import { againstAll, fill, holdAgainst } from '../../store/cross';
import type { Side } from '../../store/cross-words';
import { askRecode } from '../../store/recodes';
import { useSession, useParts } from '../../store/session';
import { PickList, type Pickable } from '../asking/PickList';
import { useEarlyTyping } from '../asking/useEarlyTyping';
import { useInView } from '../sets/useInView';
import { telling, whyNot } from './sideWords';

const MOST = 9;
const TITLES: Record<Side | 'everything' | 'against', string> = {
  down: 'What stands down?',
  across: 'What stands across?',
  within: 'Within the levels of what?',
  measure: 'What is summarised in the cells?',
  everything: 'What is held against everything?',
  against: 'Held against what?',
};

/** A variable for a side of a table, by typing its name or what it is about. */
export function PickSide() {
  const { asking, side, crossing, state, current } = useParts(
    'asking',
    'side',
    'crossing',
    'state',
    'current',
  );
  const { inside, outside } = useInView();
  const shown = asking === 'side';
  const [typed, setTyped] = useState('');
  useEffect(() => {
    if (!shown) setTyped('');
  }, [shown]);
  const filled = side === 'everything' || side === 'against' ? null : crossing[side];
  const found = useMemo(
    () => (shown ? foundFor(typed, inside, side, (name) => state.called.get(name)?.name ?? name) : []),
    [shown, typed, inside, side, state.called],
  );
  const close = (): void => {
    useSession.setState({ asking: null });
    document.querySelector<HTMLElement>('.work .crossroom, .work .ledger, .work .flaglist')?.focus();
  };
  const take = (name: string | null): void => {
    const summary = name === null ? null : inside.find((one) => one.name === name);
    close();
    if (summary && whyNot(summary, side) !== null)
      return void setTimeout(() =>
        askRecode(summary.name, side === 'everything' || side === 'against' ? null : side),
      );
    if (side === 'everything') {
      if (name !== null) void againstAll(name);
    } else if (side === 'against') {
      if (name !== null && current !== null) holdAgainst([current, name]);
    } else fill(side, name);
    setTimeout(() => document.querySelector<HTMLElement>('.crossroom')?.focus());
  };
  const choices: (Pickable & { name: string | null })[] = [
    ...(filled !== null && typed === ''
      ? [{ key: '', name: null, shown: <span className="soft">nothing: leave it empty</span> }]
      : []),
    ...found.map((one) => ({
      key: one.name,
      name: one.name,
      shown: <Choice summary={one} called={state.called.get(one.name)?.name ?? one.name} side={side} />,
    })),
  ];
  useEarlyTyping(shown, 'pick-side', setTyped, () => choices[0] && take(choices[0].name));
  return (
    <Modal show={shown} onHide={close} aria-labelledby="side-title" animation={false}>
      <Modal.Body>
        <h2 id="side-title" className="fs-6">
          {TITLES[side]}
        </h2>
        <PickList
          id="pick-side"
          label="Variable, by name or what it is about"
          listLabel="Variables"
          placeholder="First letters of a variable, or what it is about"
          typed={typed}
          setTyped={setTyped}
          choices={choices}
          pick={(place) => take(choices[place].name)}
        />
        {found.length === 0 && (
          <p className="soft mb-0">
            No variable{outside > 0 && ' in view'} is called so or about that
            {side === 'measure' && ', and is a count or continuous'}.
          </p>
        )}
      </Modal.Body>
    </Modal>
  );
}

function Choice({
  summary,
  called,
  side,
}: {
  summary: Summary;
  called: string;
  side: Parameters<typeof whyNot>[1];
}) {
  const why = whyNot(summary, side);
  return (
    <>
      <span className="code">{called}</span> <span className="soft">{summary.label}</span>
      {why !== null && <span className="soft"> ({why})</span>}
    </>
  );
}

/** What fits what is typed: those that begin with it first, those that can stand there before those that cannot. */
function foundFor(
  typed: string,
  inside: readonly Summary[],
  side: Parameters<typeof whyNot>[1],
  called: (name: string) => string,
): Summary[] {
  const word = typed.trim().toLowerCase();
  const first = side === 'everything' && word === '' ? telling(inside).map(({ name }) => name) : [];
  const rank = (one: Summary): number =>
    (whyNot(one, side) === null ? 0 : 4) +
    (called(one.name).toLowerCase().startsWith(word) || one.name.toLowerCase().startsWith(word) ? 0 : 2) +
    (first.length === 0 || first.includes(one.name) ? 0 : 1);
  return inside
    .filter(
      (one) =>
        (side !== 'measure' || whyNot(one, side) === null) &&
        `${one.name} ${called(one.name)} ${one.label ?? ''} ${one.words}`.toLowerCase().includes(word),
    )
    .map((one) => ({ one, at: rank(one) }))
    .sort((a, b) => a.at - b.at)
    .map(({ one }) => one)
    .slice(0, MOST);
}
