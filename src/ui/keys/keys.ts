'use client';

import { useEffect, useRef } from 'react';
import { flushSync } from 'react-dom';
import { decide, undoLast } from '../../store/decisions';
import { askCondition, atHand, STATIONS, useSession } from '../../store/session';
import { putInForce, sieveBy } from '../../store/sieve';
import { viewAll } from '../../store/sets';
import { press, type Handlers, type Where } from './table';

/** Whether a key press belongs to a field or an open dialog and not to the screen. */
export function isTyping(event: KeyboardEvent | React.KeyboardEvent): boolean {
  const target = event.target as HTMLElement;
  // A box to tick takes the space key and no letters.
  const field = target.matches('input[type=checkbox]')
    ? event.key === ' '
    : /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName);
  return (
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    field ||
    target.isContentEditable ||
    target.closest('[role=dialog], .dropdown-menu') !== null ||
    document.querySelector('.modal.show') !== null ||
    // A dialog that was asked for has the keys from that moment, also while it is still being shown.
    useSession.getState().asking !== null
  );
}

/** Acts on the keys of one place, anywhere on the page, for as long as the component that asks for it is shown. */
export function useKeys<W extends Where>(where: W, handlers: Handlers<W>): void {
  const now = useRef(handlers);
  now.current = handlers;
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (isTyping(event) || event.defaultPrevented) return;
      if (press(where, event, now.current)) event.preventDefault();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [where]);
}

/** Keys that hold everywhere: stations by number, undo, the list of keys. */
export function useFrameKeys(help: () => void): void {
  useKeys('everywhere', {
    station: ({ key }) => {
      const { opened, reading } = useSession.getState();
      const station = STATIONS[Number(key) - 1];
      if (!station || reading || (!opened && station !== 'intake')) return false;
      flushSync(() => useSession.setState({ station }));
      // The next key belongs to the station, also where the person was on it already.
      document
        .querySelector<HTMLElement>(
          '.work .ledger, .work .flaglist, .work .setsmap, .work .recordtable, .work .crossroom, .work > .sheet:not([hidden])',
        )
        ?.focus();
    },
    jump: () => {
      const { opened, reading } = useSession.getState();
      if (!opened || reading) return false;
      flushSync(() => useSession.setState({ asking: 'jump' }));
    },
    into: () => {
      const { opened, reading } = useSession.getState();
      if (!opened || reading || atHand(useSession.getState()).length === 0) return false;
      flushSync(() => useSession.setState({ asking: 'into' }));
    },
    scope: () => {
      if (!useSession.getState().opened) return false;
      // With the focus on it, arrows go into the menu and Esc closes it.
      const control = document.getElementById('sets-in-view');
      control?.focus();
      control?.click();
    },
    allInView: () => {
      if (useSession.getState().state.shown.size === 0) return false;
      viewAll();
    },
    sift: () => {
      const { opened, reading, current, station, table } = useSession.getState();
      if (!opened || reading || station === 'intake') return false;
      flushSync(() => askCondition(station === 'rows' ? (table.column ?? current) : current));
    },
    inForce: () => {
      if (!useSession.getState().draft) return false;
      void putInForce();
    },
    allRows: () => {
      if (useSession.getState().state.sieve === null) return false;
      sieveBy(null);
    },
    noWeight: () => {
      if (useSession.getState().state.weight === null) return false;
      void decide({ type: 'weigh', by: null });
    },
    undo: () => {
      if (!useSession.getState().opened) return false;
      void undoLast();
    },
    help,
  });
}
