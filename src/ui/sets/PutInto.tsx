'use client';

import { useEffect, useMemo, useState } from 'react';
import Modal from 'react-bootstrap/Modal';
import { counted } from '../../core/handoff/words';
import { atHand, useSession, useParts } from '../../store/session';
import { makeSet, putInto, takeProposals } from '../../store/sets';
import { useShallow } from 'zustand/react/shallow';
import { useProposals } from './useProposals';
import { openProposals } from '../../core/sets/open';
import { PickList } from '../asking/PickList';

interface Choice {
  key: string;
  name: string;
  says: string;
  put: () => Promise<unknown>;
}

const MOST = 9;

/** Puts what is at hand into a set, from anywhere: the first letters of its name and Enter; a new name makes a new set. */
export function PutInto() {
  const { asking, state, opened } = useParts('asking', 'state', 'opened');
  const names = useSession(useShallow(atHand));
  const shown = asking === 'into';
  const [typed, setTyped] = useState('');
  useEffect(() => {
    if (shown) return;
    setTyped('');
  }, [shown]);
  useProposals(shown);
  const choices = useMemo(
    () => (shown ? choicesFor(typed, names) : []),
    // The choices are those of the moment: sets and proposals of the session.
    [shown, typed, names, state, opened],
  );
  const close = (): void => {
    useSession.setState({ asking: null });
    document.querySelector<HTMLElement>('.ledger, .flaglist, .setsmap')?.focus();
  };
  const put = (choice: Choice | undefined): void => {
    if (!choice || names.length === 0) return;
    close();
    useSession.setState({ chosen: new Set() });
    void choice.put();
  };
  return (
    <Modal show={shown} onHide={close} aria-labelledby="into-title" animation={false}>
      <Modal.Body>
        <h2 id="into-title" className="fs-6">
          Put{' '}
          {names.length === 1 ? <span className="code">{names[0]}</span> : counted(names.length, 'variable')}{' '}
          into a set
        </h2>
        <PickList
          id="into"
          label="Name of the set"
          listLabel="Sets"
          placeholder="First letters of a set, or a new name"
          typed={typed}
          setTyped={setTyped}
          choices={choices.map(({ key, name, says }) => ({
            key,
            shown: (
              <>
                {name} <span className="soft">{says}</span>
              </>
            ),
          }))}
          pick={(place) => put(choices.at(place))}
        />
        {choices.length === 0 && <p className="soft mb-0">Type the name of a new set.</p>}
      </Modal.Body>
    </Modal>
  );
}

/** Sets whose names begin so, then those that hold it; then proposals; then a new set of that name. */
function choicesFor(typed: string, names: readonly string[]): Choice[] {
  const { state, opened } = useSession.getState();
  const word = typed.trim().toLowerCase();
  const rank = (name: string): number => {
    const at = name.toLowerCase().indexOf(word);
    return at === 0 ? 0 : at > 0 ? 1 : 2;
  };
  const fitting = <T extends { name: string }>(all: readonly T[]): T[] =>
    all.filter(({ name }) => rank(name) < 2).sort((a, b) => rank(a.name) - rank(b.name));
  const made = [...state.sets.values()];
  const proposals = openProposals(opened?.proposals ?? [], state);
  const same = (name: string): boolean => name.toLowerCase() === word;
  return [
    ...fitting(made).map(({ id, name, variables }): Choice => ({
      key: id,
      name,
      says:
        variables.filter((one) => names.includes(one)).length === names.length
          ? 'they are in it'
          : counted(variables.length, 'variable'),
      put: () =>
        putInto(
          id,
          names.filter((one) => !variables.includes(one)).length
            ? names.filter((one) => !variables.includes(one))
            : names,
        ),
    })),
    ...(word && !made.some(({ name }) => same(name)) && !proposals.some(({ name }) => same(name))
      ? [{ key: 'new', name: typed.trim(), says: 'a new set', put: () => makeSet(typed.trim(), names) }]
      : []),
    ...(word
      ? fitting(proposals).map((one): Choice => ({
          key: `proposed ${one.name}`,
          name: one.name,
          says: `${one.from === 'codebook' ? 'a group of the archive' : 'proposed'}, ${counted(one.variables.length, 'variable')}; made a set by this`,
          put: async () => {
            const [id] = await takeProposals([one]);
            await putInto(id, names);
          },
        }))
      : []),
  ].slice(0, MOST);
}
