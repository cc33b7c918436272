'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState } from 'react';
import { strengthOf, type Pair } from '../../core/cross/ranked';
import { counted, whole } from '../../core/handoff/words';
import { changeCross, fill, holdAgainst, stopAgainst } from '../../store/cross';
import { useParts } from '../../store/session';
import { Quiet } from '../frame/Quiet';
import { isTyping } from '../keys/keys';
import { press } from '../keys/table';
import { askSide } from './Sides';

const ROW = 34;

/** One variable against all others in view, the strongest first; each line opens its table. */
export function EverythingList() {
  const { everything, summaries, state } = useParts('everything', 'summaries', 'state');
  const [at, setAt] = useState(0);
  const scroller = useRef<HTMLDivElement>(null);
  const pairs = everything?.pairs ?? [];
  const here = Math.max(0, Math.min(pairs.length - 1, at));
  const virtual = useVirtualizer({
    count: pairs.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  useEffect(() => scroller.current?.focus(), []);
  if (!everything) return null;
  const { of, done, whole: all, running } = everything;
  const label = summaries.find(({ name }) => name === of)?.label;
  const go = (to: number): void => {
    const next = Math.max(0, Math.min(pairs.length - 1, to));
    setAt(next);
    virtual.scrollToIndex(next);
  };
  const open = (pair: Pair | undefined): void => {
    if (!pair) return;
    if (pair.etaSquared !== undefined) {
      holdAgainst([of]);
      fill('measure', pair.variable);
    } else holdAgainst([of, pair.variable]);
  };
  const onKey = (event: React.KeyboardEvent): void => {
    if (isTyping(event)) return;
    const meant = press('everything', event.nativeEvent, {
      pairBefore: () => go(here - 1),
      pairAfter: () => go(here + 1),
      firstPair: () => go(0),
      lastPair: () => go(pairs.length - 1),
      openPair: () => {
        if ((event.target as HTMLElement).closest('button')) return false;
        open(pairs.at(here));
      },
      another: () => askSide('everything'),
      leavePairs: () => {
        if (running) stopAgainst();
        else changeCross({ view: 'table' });
      },
    });
    if (meant) event.preventDefault();
  };
  return (
    <div className="everything" onKeyDown={onKey}>
      <div className="ledgerbar">
        <span>
          <span className="code">{state.called.get(of)?.name ?? of}</span> {label}{' '}
          <strong>against everything in view</strong>
        </span>
        <progress max={all} value={done} aria-label="Variables held against it" />
        <span role="status">
          {running
            ? `${whole(done)} of ${counted(all, 'variable')}`
            : done < all
              ? `stopped after ${whole(done)} of ${counted(all, 'variable')}`
              : `all ${counted(all, 'variable')}`}
        </span>
        {running && (
          <Quiet does={stopAgainst} shownKey="Esc">
            Stop
          </Quiet>
        )}
        <Quiet does={() => askSide('everything')} shownKey="e">
          Another variable…
        </Quiet>
        <Quiet does={() => changeCross({ view: 'table' })} shownKey={!running && 'Esc'}>
          Back to the table
        </Quiet>
      </div>
      <div className="pairhead" aria-hidden="true">
        <span>Variable</span>
        <span>How strongly</span>
        <span className="n">Cells that stand out</span>
        <span className="n">Rows valid in both</span>
      </div>
      <div
        className="crossroom pairs"
        ref={scroller}
        tabIndex={0}
        role="listbox"
        aria-label={`Variables by how strongly they hang together with ${of}`}
        aria-activedescendant={pairs.length ? `pair-${here}` : undefined}
      >
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map(({ index, start }) => (
            <PairLine
              key={pairs[index].variable}
              id={`pair-${index}`}
              pair={pairs[index]}
              called={state.called.get(pairs[index].variable)?.name ?? pairs[index].variable}
              start={start}
              at={index === here}
              open={() => {
                setAt(index);
                open(pairs[index]);
              }}
            />
          ))}
        </div>
        {!running && pairs.length === 0 && (
          <p className="soft p-3">No other variable in view can be held against it.</p>
        )}
      </div>
    </div>
  );
}

function PairLine({
  id,
  pair,
  called,
  start,
  at,
  open,
}: {
  id: string;
  pair: Pair;
  called: string;
  start: number;
  at: boolean;
  open: () => void;
}) {
  const strength = strengthOf(pair);
  return (
    <div
      id={id}
      role="option"
      aria-selected={at}
      className={`pairline${at ? ' at' : ''}`}
      style={{ transform: `translateY(${start}px)`, height: ROW }}
      onClick={open}
    >
      <span className="what" title={pair.label ?? undefined}>
        <span className="code">{called}</span> <span className="soft">{pair.label}</span>
      </span>
      <span className="strength">
        <span className="bar" style={{ width: `${(strength ?? 0) * 100}%` }} />
        <span className="value">
          {pair.etaSquared !== undefined
            ? pair.etaSquared === null
              ? 'η undefined'
              : // As the bar and the order have it: η stands beside V, and its square does not.
                `η ${Math.sqrt(pair.etaSquared).toFixed(2)}`
            : pair.cramersV === null || pair.cramersV === undefined
              ? 'V undefined'
              : `V ${pair.cramersV.toFixed(2)}`}
        </span>
      </span>
      <span className="n">
        {pair.cells === null ? <span className="soft">a measure</span> : whole(pair.cells)}
      </span>
      <span className="n">{whole(pair.base)}</span>
    </div>
  );
}
