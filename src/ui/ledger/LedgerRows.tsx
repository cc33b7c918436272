'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useMemo } from 'react';
import type { Summary } from '../../core/inspect/summary';
import { lookingAt } from '../../store/looking';
import { useSession } from '../../store/session';
import type { ColumnKey } from './columns';
import { LedgerRow } from './LedgerRow';
import { progressOf, setsOf } from './rows';
import { useInView } from '../sets/useInView';

export const ROW = 30;
/** The head stays above the rows while they scroll. */
const HEAD = 28;
/** Rows that are drawn above and below those that are seen. */
const SPARE = 6;
const NO_SETS: readonly string[] = [];
/** Always the same function, so that rows that did not change are not drawn again while scrolling. */
export const toggleChosen = (name: string): void =>
  useSession.setState((now) => {
    const next = new Set(now.chosen);
    if (!next.delete(name)) next.add(name);
    return { chosen: next };
  });

interface Props {
  rows: readonly Summary[];
  /** Place of the variable at hand; −1 where it is not listed. */
  at: number;
  /** Open flags by variable. */
  numbers: ReadonlyMap<string, number>;
  columns: readonly ColumnKey[];
  template: string;
  /** What they scroll in, once it is there. */
  grid: HTMLElement | null;
}

/**
 * The rows that are seen, and a few more. Scrolling draws nothing but these: a row that comes in takes the place in the page of
 * one that went out.
 */
export const LedgerRows = memo(function LedgerRows({ rows, at, numbers, columns, template, grid }: Props) {
  const state = useSession((now) => now.state);
  const chosen = useSession((now) => now.chosen);
  const seen = useSession((now) => now.seen);
  const stale = useSession((now) => now.stale);
  const bySet = useSession((now) => now.sort.by === 'sets');
  const { isInside } = useInView();
  const sets = useMemo(() => setsOf(state), [state]);
  const groupOf = (index: number): string | null => sets.get(rows[index]?.name ?? '')?.[0] ?? null;
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => grid,
    estimateSize: () => ROW,
    overscan: SPARE,
    scrollMargin: HEAD,
    scrollPaddingStart: HEAD,
  });
  // Always as many rows as fit, with some to spare: each has its place in the page, where only what it shows changes.
  const fitting = Math.ceil((virtual.scrollRect?.height ?? 0) / ROW) + 1 + 2 * SPARE;
  const slots = Math.min(rows.length, fitting);
  const first = Math.max(0, Math.min((virtual.range?.startIndex ?? 0) - SPARE, rows.length - slots));
  const last = first + slots - 1;
  useEffect(() => lookingAt(rows.slice(first, last + 1).map(({ name }) => name)), [first, last, rows]);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
    // Only when the variable at hand changes, not at each scroll.
  }, [grid, at]);
  useEffect(() => {
    // Only a row that is drawn can be pointed at.
    const drawnAt = at >= first && at <= last ? rows[at] : undefined;
    if (drawnAt) grid?.setAttribute('aria-activedescendant', `row-${drawnAt.position}`);
    else grid?.removeAttribute('aria-activedescendant');
  }, [grid, at, first, last, rows]);
  return (
    <div className="ledgerbody" role="rowgroup" style={{ height: virtual.getTotalSize() }}>
      {Array.from({ length: slots }, (_, slot) => {
        const index = first + ((((slot - first) % slots) + slots) % slots);
        const { name } = rows[index];
        return (
          <LedgerRow
            key={slot}
            summary={rows[index]}
            called={state.called.get(name)?.name ?? null}
            noted={state.notes.has(name)}
            progress={progressOf(name, state, seen)}
            index={index}
            top={index * ROW}
            current={index === at}
            chosen={chosen.has(name)}
            flags={numbers.get(name) ?? 0}
            sets={sets.get(name) ?? NO_SETS}
            out={!isInside(name)}
            stale={stale.has(name)}
            heads={bySet && index > 0 && groupOf(index) !== groupOf(index - 1)}
            columns={columns}
            template={template}
            toggle={toggleChosen}
          />
        );
      })}
    </div>
  );
});
