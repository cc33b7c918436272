'use client';

import dynamic from 'next/dynamic';
import { useEffect, useMemo, useRef, useState, type ComponentProps } from 'react';
import { barsOf } from '../../core/handoff/chart';
import type ChartOf from './Chart';

const Chart = dynamic(() => import('./Chart'), {
  ssr: false,
  loading: () => <div className="chartroom soft">Drawing…</div>,
});

/** Milliseconds that a person stays on a variable before its chart is drawn: drawing takes longer than all else together. */
const REST = 140;

/**
 * A chart that waits until somebody rests on the variable, and keeps its room meanwhile. It is drawn again only where what it
 * shows is another: a ruling that leaves it as it is does not wait for it.
 */
export function RestedChart({ pick, ...shown }: ComponentProps<typeof ChartOf>) {
  const { name, picture } = shown;
  const [rested, setRested] = useState<string | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setRested(name), REST);
    return () => clearTimeout(timer);
  }, [name]);
  const picked = useRef(pick);
  picked.current = pick;
  const drawn = useMemo(
    () => <Chart {...shown} pick={(bar) => picked.current?.(bar)} />,
    [JSON.stringify(shown)],
  );
  if (rested === name) return drawn;
  const height = picture.form === 'bars' ? barsOf(picture).length * 24 + 44 : 220;
  return <div className="chartroom soft" style={{ minHeight: height }} aria-hidden="true" />;
}
