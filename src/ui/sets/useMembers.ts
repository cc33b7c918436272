import { useEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { decide } from '../../store/decisions';
import { askFor, useSession } from '../../store/session';
import { lookAt, putInto } from '../../store/sets';
import { press } from '../keys/table';
import type { Block } from './blocks';

/** The variables of an opened set: the one at hand, those chosen, and what keys do. */
export interface Members {
  list: RefObject<HTMLUListElement | null>;
  /** Its own in their order, then those of the sets within it. */
  listed: readonly string[];
  here: number;
  chosen: ReadonlySet<string>;
  pick: (at: number, too: boolean) => void;
  onKey: (event: KeyboardEvent) => void;
}

const NONE: ReadonlySet<string> = new Set();

/** @param belongs shows what else belongs to it, or hides that @param back goes back to the map */
export function useMembers(block: Block, belongs: () => void, back: () => void): Members {
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState(NONE);
  const list = useRef<HTMLUListElement>(null);
  const own = new Set(block.own);
  const listed = [...block.own, ...block.variables.filter((one) => !own.has(one))];
  const here = Math.min(at, listed.length - 1);
  const current = listed[here];
  const some = listed.filter((name) => chosen.has(name));
  const picked = some.length ? some : current === undefined ? [] : [current];
  // What is put into another set, or split off, is what is picked here.
  useEffect(
    () => useSession.setState(({ onMap }) => ({ onMap: { ...onMap, variables: picked } })),
    [picked.join('\n')],
  );
  useEffect(() => {
    list.current?.querySelector('[aria-current=true]')?.scrollIntoView({ block: 'nearest' });
  }, [here]);
  const toggled = (...names: string[]): ReadonlySet<string> => {
    const next = new Set(chosen);
    for (const name of names) if (!next.delete(name)) next.add(name);
    return next;
  };
  const step = (by: number, shift: boolean): void => {
    const to = Math.max(0, Math.min(listed.length - 1, here + by));
    if (shift) setChosen(new Set([...chosen, current, listed[to]]));
    setAt(to);
  };
  const move = (by: number): boolean => {
    const place = block.own.indexOf(current);
    const to = place + by;
    if (!block.id || place < 0 || to < 0 || to >= block.own.length) return false;
    void putInto(block.id, [current], block.own[by < 0 ? to : to + 1] ?? null);
    setAt(here + by);
    return true;
  };
  /** Those of the set itself, where some would be left in it. */
  const leaving = (): string[] => {
    const names = picked.filter((name) => own.has(name));
    return block.id !== null && names.length < own.size ? names : [];
  };
  const onKey = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey) return;
    const meant = press('members', event.nativeEvent, {
      moveUp: () => move(-1),
      moveDown: () => move(1),
      memberBefore: ({ shiftKey }) => step(-1, shiftKey),
      memberAfter: ({ shiftKey }) => step(1, shiftKey),
      firstMember: () => setAt(0),
      lastMember: () => setAt(listed.length - 1),
      chooseMember: () => current !== undefined && setChosen(toggled(current)),
      profileOfMember: () => current !== undefined && lookAt(current),
      takeOut: () => {
        const variables = leaving();
        if (block.id === null || variables.length === 0) return false;
        setChosen(NONE);
        void decide({ type: 'take-from-set', set: block.id, variables });
      },
      splitOff: () => {
        if (leaving().length === 0) return false;
        askFor('split');
      },
      belongs,
      backToMap: back,
    });
    if (!meant) return;
    event.preventDefault();
    event.stopPropagation();
  };
  const pick = (to: number, too: boolean): void => {
    setAt(to);
    setChosen(too ? toggled(listed[to]) : NONE);
  };
  return { list, listed, here, chosen, pick, onKey };
}
