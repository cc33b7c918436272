'use client';

import { useState } from 'react';
import { useSession } from '../../store/session';
import { PickList } from '../asking/PickList';
import { useInView } from '../sets/useInView';

const MOST = 9;

/** A variable in view by typing its name or what it is about. */
export function PickVariable({ pick }: { pick: (name: string) => void }) {
  const { inside } = useInView();
  const state = useSession((session) => session.state);
  const [typed, setTyped] = useState('');
  const word = typed.trim().toLowerCase();
  const rank = (name: string): number => (name.toLowerCase().startsWith(word) ? 0 : 1);
  const found = inside
    .filter(({ name, label, words }) =>
      `${name} ${state.called.get(name)?.name ?? ''} ${label ?? ''} ${words}`.toLowerCase().includes(word),
    )
    .sort((a, b) => rank(a.name) - rank(b.name))
    .slice(0, MOST);
  return (
    <>
      <PickList
        id="pick-variable"
        label="Variable, by name or what it is about"
        listLabel="Variables"
        placeholder="First letters of a variable, or what it is about"
        typed={typed}
        setTyped={setTyped}
        choices={found.map(({ name, label }) => ({
          key: name,
          shown: (
            <>
              <span className="code">{state.called.get(name)?.name ?? name}</span>{' '}
              <span className="soft">{label}</span>
            </>
          ),
        }))}
        pick={(place) => pick(found[place].name)}
      />
      {found.length === 0 && <p className="soft mb-0">No variable in view is called so or about that.</p>}
    </>
  );
}
