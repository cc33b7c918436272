'use client';

import { useEffect } from 'react';
import { flushSync } from 'react-dom';
import { undoLast } from '../../store/decisions';
import { STATIONS, useSession } from '../../store/session';

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

/** Keys that hold everywhere: stations by number, undo, the list of keys. */
export function useFrameKeys(help: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (isTyping(event) || event.defaultPrevented) return;
      const { opened, reading } = useSession.getState();
      const station = STATIONS[Number(event.key) - 1];
      if (station && !reading && (opened || station === 'intake')) {
        flushSync(() => useSession.setState({ station }));
        // The next key belongs to the station, also where the person was on it already.
        document
          .querySelector<HTMLElement>('.work .ledger, .work .flaglist, .work > .sheet:not([hidden])')
          ?.focus();
      } else if (event.key === 'u' && opened) void undoLast();
      else if (event.key === 'g' && opened && !reading)
        flushSync(() => useSession.setState({ asking: 'jump' }));
      else if (event.key === '?') help();
      else return;
      event.preventDefault();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
}

/** Every key, by where it acts. The list that `?` shows. */
export const KEYS: readonly { where: string; keys: readonly (readonly [string, string])[] }[] = [
  {
    where: 'Everywhere',
    keys: [
      ['1 – 4', 'go to a station'],
      ['g', 'go to any variable by name'],
      ['u', 'undo the last ruling'],
      ['?', 'this list'],
      ['Esc', 'stop reading; leave a field or the profile'],
    ],
  },
  {
    where: 'Ledger',
    keys: [
      ['↑ ↓', 'previous, next variable'],
      ['← →', 'the same, from the profile too'],
      ['PgUp PgDn', 'a screenful up, down'],
      ['Home End', 'first, last variable'],
      ['Enter', 'go into the profile'],
      ['w', 'profile on the whole width, and back'],
      ['c', 'confirm the kind (of all chosen, if any are)'],
      ['k', 'say another kind'],
      ['l', 'label codes, or declare them missing'],
      ['h', 'a ruling by hand: missing, another code, who was asked, role'],
      ['o', 'order its codes'],
      ['r', 'another name or label'],
      ['n', 'note'],
      ['x', 'sign off, or take that back'],
      ['Space', 'choose or leave out'],
      ['Shift ↑ ↓', 'choose while moving'],
      ['a', 'choose all listed, or none'],
      ['s', 'make a set of the chosen'],
      ['t', 'the chosen side by side'],
      ['f', 'narrow the list'],
      ['/', 'search names, labels, codes'],
    ],
  },
  {
    where: 'Flags',
    keys: [
      ['↑ ↓', 'previous, next pattern'],
      ['m', 'declare its codes missing'],
      ['b', 'merge its spellings, or set its rows aside'],
      ['v', 'keep its codes as valid, or leave as it is'],
      ['q', 'ask the archive'],
      ['s', 'your standing rules'],
      ['y', 'type a reason; Esc goes back'],
    ],
  },
];
