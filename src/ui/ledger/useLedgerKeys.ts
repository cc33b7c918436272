'use client';

import type { RefObject } from 'react';
import { flushSync } from 'react-dom';
import { useSession } from '../../store/session';
import { useKeys } from '../keys/keys';
import type { Pressed } from '../keys/table';

interface Listed {
  /** Names of the variables in the list, in its order, and the place of the one at hand; −1 where it is not listed. */
  names: readonly string[];
  at: number;
  /** Rows that are seen at once. */
  screenful: () => number;
  grid: RefObject<HTMLElement | null>;
  search: RefObject<HTMLInputElement | null>;
  toggle: (name: string) => void;
}

/** Goes to a row of the list, or to the nearest there is. */
export function goTo(names: readonly string[], to: number): void {
  const name = names[Math.max(0, Math.min(names.length - 1, to))];
  if (name !== undefined) useSession.setState({ current: name });
}

/** The keys of the ledger. Some act anywhere on the station, so that the profile can be read and ruled on without going back; those that move and choose act on the rows alone. */
export function useLedgerKeys({ names, at, screenful, grid, search, toggle }: Listed): void {
  const onRows = ({ target }: Pressed): boolean => grid.current?.contains(target as Node) ?? false;
  const move =
    (to: () => number) =>
    (pressed: Pressed): boolean => {
      if (!onRows(pressed)) return false;
      const { current, chosen } = useSession.getState();
      const next = to();
      if (pressed.shiftKey && current && pressed.key.startsWith('Arrow'))
        useSession.setState({ chosen: new Set([...chosen, current, names[next] ?? current]) });
      goTo(names, next);
      return true;
    };
  useKeys('ledger', {
    previous: move(() => at - 1),
    next: move(() => at + 1),
    screenUp: move(() => at - screenful()),
    screenDown: move(() => at + screenful()),
    first: move(() => 0),
    last: move(() => names.length - 1),
    back: () => goTo(names, at - 1),
    on: () => goTo(names, at + 1),
    profile: (pressed) => {
      if (!onRows(pressed)) return false;
      document.getElementById('profile')?.focus();
    },
    choose: (pressed) => {
      const { current } = useSession.getState();
      if (!onRows(pressed) || !current) return false;
      toggle(current);
    },
    chooseAll: () => {
      const { chosen } = useSession.getState();
      useSession.setState({ chosen: new Set(names.every((name) => chosen.has(name)) ? [] : names) });
    },
    set: () => {
      if (useSession.getState().chosen.size === 0) return false;
      useSession.setState({ asking: 'set' });
    },
    together: () => {
      if (useSession.getState().chosen.size < 2) return false;
      useSession.setState({ asking: 'together' });
    },
    narrow: () => document.getElementById('narrow')?.click(),
    search: () => {
      // What is typed next must land in the field, so it gets the focus at once, and is only then shown if it was hidden.
      if (useSession.getState().wide) flushSync(() => useSession.setState({ wide: false }));
      search.current?.select();
    },
  });
}
