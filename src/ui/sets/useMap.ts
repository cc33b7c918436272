import { useEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { askFor, useSession } from '../../store/session';
import { isTyping } from '../keys/keys';
import { press } from '../keys/table';
import { SURE, type Block } from './blocks';
import * as doing from './doings';
import { idOf } from './SetBlock';

/** The set at hand on the map, those chosen, and what keys do. */
export interface MapAtHand {
  map: RefObject<HTMLDivElement | null>;
  current: Block | undefined;
  chosen: ReadonlySet<string>;
  go: (key: string, open: boolean) => void;
  takeSure: () => void;
  onKey: (event: KeyboardEvent) => void;
}

/** The archive's own groups, and proposals that are sure. */
export const sureOnes = (blocks: readonly Block[]): Block[] =>
  blocks.filter(({ sort, confidence }) => sort === 'archive' || (sort === 'found' && confidence >= SURE));

/** Pixels by which sets of one column may stand apart: they are nested. */
const INDENTS = 60;

export function useMap(blocks: readonly Block[], isOpened: boolean): MapAtHand {
  const [at, setAt] = useState<string | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const map = useRef<HTMLDivElement>(null);
  // Where the set at hand is gone, the one that took its place is.
  const last = useRef(0);
  const found = blocks.findIndex(({ key }) => key === at);
  const here = found < 0 ? Math.min(last.current, blocks.length - 1) : found;
  last.current = Math.max(0, here);
  const current = blocks[here];
  useEffect(() => map.current?.focus(), []);
  useEffect(() => {
    if (current) document.getElementById(`set-${idOf(current.key)}`)?.scrollIntoView({ block: 'nearest' });
  }, [current?.key]);
  const go = (key: string, open: boolean): void => {
    setAt(key);
    if (open) doing.openBlock(key);
    map.current?.focus();
  };
  const picked = (): Block[] => {
    const some = blocks.filter(({ key }) => chosen.has(key));
    return some.length ? some : current ? [current] : [];
  };
  const chooseNone = (): void => setChosen(new Set());
  const step = (by: number): void => {
    const to = blocks[Math.max(0, Math.min(blocks.length - 1, here + by))];
    if (to) go(to.key, isOpened);
  };
  /** The set above or below, by where they are drawn. */
  const rowStep = (by: 1 | -1): void => {
    const boxes = [...(map.current?.querySelectorAll<HTMLElement>('.setblock') ?? [])].map((one) =>
      one.getBoundingClientRect(),
    );
    const own = boxes[here];
    if (!own) return;
    // In its own column first: sets within a set are drawn a little to the right.
    const [nearest] = boxes
      .map((box, i) => ({ i, down: (box.top - own.top) * by, aside: Math.abs(box.left - own.left) }))
      .filter(({ down }) => down > 4)
      .sort(
        (a, b) =>
          Number(a.aside > INDENTS) - Number(b.aside > INDENTS) || a.down - b.down || a.aside - b.aside,
      );
    if (nearest) step(nearest.i - here);
  };
  const takeSure = (): void => {
    chooseNone();
    void doing.take(sureOnes(blocks));
  };
  const onKey = (event: KeyboardEvent): void => {
    if (isTyping(event)) return;
    const meant = press('sets', event.nativeEvent, {
      setBefore: () => step(-1),
      setAfter: () => step(1),
      setAbove: () => rowStep(-1),
      setBelow: () => rowStep(1),
      openSet: () => {
        if (!current) return false;
        doing.openBlock(current.key);
        setTimeout(() => document.querySelector<HTMLElement>('.setlist')?.focus());
      },
      closeSet: () => {
        if (!isOpened) return false;
        doing.openBlock(null);
      },
      chooseSet: () => {
        if (!current) return false;
        const next = new Set(chosen);
        if (!next.delete(current.key)) next.add(current.key);
        setChosen(next);
      },
      viewSet: () => {
        const list = picked();
        chooseNone();
        void doing.view(list);
      },
      takeSet: () => {
        const list = picked();
        chooseNone();
        void doing.take(list);
      },
      takeSure,
      sendSetAway: () => {
        const list = picked();
        chooseNone();
        return doing.dismiss(list);
      },
      dropSet: () => {
        const list = picked();
        chooseNone();
        return doing.remove(list);
      },
      renameSet: () => {
        if (!current?.id) return false;
        askFor('nameset');
      },
      mergeSets: () => {
        const list = picked();
        if (list.length < 2) return false;
        chooseNone();
        void doing.merge(list).then((id) => id && setAt(id));
      },
      nestSets: () => {
        const list = picked();
        chooseNone();
        return doing.nest(list);
      },
    });
    if (meant) event.preventDefault();
  };
  // Where no set is opened, all variables of the one at hand are what is put into another.
  useEffect(() => {
    if (!isOpened)
      useSession.setState(({ onMap }) => ({ onMap: { ...onMap, variables: current?.variables ?? [] } }));
  }, [isOpened, current?.key, current?.variables.length]);
  useEffect(() => () => useSession.setState(({ onMap }) => ({ onMap: { ...onMap, variables: [] } })), []);
  return { map, current, chosen, go, takeSure, onKey };
}
