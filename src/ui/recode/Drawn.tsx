'use client';

import { useRef, useState } from 'react';
import { counted } from '../../core/handoff/words';
import type { Recodable } from '../../core/inspect/recoding';
import {
  edgesOf,
  onGrid,
  withMoved,
  withoutEdge,
  withSplit,
  type Edge,
  type Range,
} from '../../core/recode/edges';
import { endText } from '../../core/recode/ends';
import { askOrSay } from '../../store/asking';
import { press } from '../keys/table';

const WIDTH = 560;
const HEIGHT = 150;
const HEAD = 4;
const GRIP = 9;

/** The distribution with its bands: edges are set, moved, split and removed by mouse and keys. */
export function Drawn({
  about,
  bands,
  change,
}: {
  about: Recodable;
  bands: readonly Range[];
  change: (bands: readonly Range[]) => void;
}) {
  const { bars, scale, storage } = about;
  const svg = useRef<SVGSVGElement>(null);
  const dragged = useRef<Edge | null>(null);
  const [at, setAt] = useState(0);
  const [ghost, setGhost] = useState<number | null>(null);
  if (!scale || bars.length === 0) return null;
  const { step } = scale;
  const [low, high] = [bars[0].from, bars[bars.length - 1].to];
  const x = (value: number): number =>
    (WIDTH * (Math.max(low, Math.min(high, value)) - low)) / (high - low || 1);
  const valueAt = (clientX: number): number => {
    const box = svg.current?.getBoundingClientRect();
    return low + (box && box.width > 0 ? (clientX - box.left) / box.width : 0) * (high - low);
  };
  const edges = edgesOf(bands, step);
  const here = Math.max(0, Math.min(edges.length - 1, at));
  const edge = edges.at(here);
  /** Changes the bands, and goes to the edge nearest to where it happened. */
  const put = (next: readonly Range[], near: number): void => {
    change(next);
    const made = edgesOf(next, step);
    const nearest = made.reduce(
      (best, one, i) => (Math.abs(one.at - near) < Math.abs(made[best].at - near) ? i : best),
      0,
    );
    setAt(nearest);
  };
  const move = (to: number): void => {
    if (!edge) return;
    const next = withMoved(bands, edge, to, step);
    put(next, to);
  };
  const split = async (): Promise<void> => {
    const band = edge ? bands.at(edge.above ?? edge.below ?? 0) : bands.at(0);
    if (!band) return;
    const middle = await askOrSay('middle', about.name, band.from, band.to);
    if (middle !== null) put(withSplit(bands, middle, step), middle);
  };
  const onKey = (event: React.KeyboardEvent): void => {
    const bar = bars[0].to - bars[0].from;
    const by = event.shiftKey ? Math.max(step, bar) : step;
    const meant = press('edges', event.nativeEvent, {
      edgeBefore: () => setAt(here - 1),
      edgeAfter: () => setAt(Math.min(edges.length - 1, here + 1)),
      moveDown: () => edge && move(edge.at - by),
      moveUp: () => edge && move(edge.at + by),
      splitBand: () => void split(),
      mergeBands: () => edge && put(withoutEdge(bands, edge), edge.at),
    });
    if (!meant) return;
    event.preventDefault();
    event.stopPropagation();
  };
  const edgeNear = (clientX: number): Edge | undefined => {
    const box = svg.current?.getBoundingClientRect();
    const unit = box && box.width > 0 ? WIDTH / box.width : 1;
    const place = (clientX - (box?.left ?? 0)) * unit;
    return edges
      .filter((one) => Math.abs(x(one.at) - place) <= GRIP * unit)
      .sort((a, b) => Math.abs(x(a.at) - place) - Math.abs(x(b.at) - place))
      .at(0);
  };
  return (
    <figure className="recodedrawn">
      <div className="codes" aria-hidden="true">
        {bands.map(({ from, to, code }, i) => {
          const [left, right] = [x(from ?? -Infinity), x(to === null ? Infinity : to + step)];
          return right - left > 6 + 5 * code.length ? (
            <span key={i} style={{ left: `${((left + right) / 2 / WIDTH) * 100}%` }}>
              {code}
            </span>
          ) : null;
        })}
      </div>
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${HEIGHT + HEAD}`}
        preserveAspectRatio="none"
        tabIndex={0}
        role="application"
        aria-label={`Distribution of ${about.name} with ${counted(bands.length, 'band')}${edge ? `; edge ${here + 1} of ${edges.length} at ${endText(edge.at, storage)}` : ''}`}
        onKeyDown={onKey}
        onPointerDown={(event) => {
          const near = edgeNear(event.clientX);
          if (near) {
            dragged.current = near;
            setAt(edges.indexOf(near));
            event.currentTarget.setPointerCapture(event.pointerId);
          } else {
            const value = onGrid(valueAt(event.clientX), step);
            put(bands.length ? withSplit(bands, value, step) : [], value);
          }
        }}
        onPointerMove={(event) => {
          if (!dragged.current) {
            setGhost(edgeNear(event.clientX) ? null : onGrid(valueAt(event.clientX), step));
            return;
          }
          const next = withMoved(bands, dragged.current, valueAt(event.clientX), step);
          const moved = edgesOf(next, step).find(
            ({ below, above }) => below === dragged.current?.below && above === dragged.current.above,
          );
          if (moved) dragged.current = moved;
          change(next);
        }}
        onPointerUp={() => {
          dragged.current = null;
        }}
        onPointerLeave={() => setGhost(null)}
      >
        <Picture bars={bars} bands={bands} edges={edges} here={here} ghost={ghost} x={x} step={step} />
      </svg>
      <figcaption className="soft small">
        {endText(onGrid(low, step), storage)} to {endText(onGrid(high, step), storage)}.{' '}
        {edge ? (
          <>
            Edge {here + 1} of {edges.length}: from <strong>{endText(edge.at, storage)}</strong> on.{' '}
          </>
        ) : null}
        {ghost !== null && <>A click sets an edge at {endText(ghost, storage)}. </>}
        <kbd>←</kbd> <kbd>→</kbd> go from edge to edge, <kbd>↑</kbd> <kbd>↓</kbd> move it, <kbd>s</kbd>{' '}
        splits, <kbd>m</kbd> merges.
      </figcaption>
    </figure>
  );
}

/** Bands, bars and edges. @param x where a value stands */
function Picture({
  bars,
  bands,
  edges,
  here,
  ghost,
  x,
  step,
}: {
  bars: Recodable['bars'];
  bands: readonly Range[];
  edges: readonly Edge[];
  here: number;
  ghost: number | null;
  x: (value: number) => number;
  step: number;
}) {
  const most = Math.max(1, ...bars.map(({ count }) => count));
  return (
    <>
      <defs>
        <pattern
          id="nobands"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" x2="0" y1="0" y2="6" />
        </pattern>
      </defs>
      <rect className="noband" x={0} y={HEAD} width={WIDTH} height={HEIGHT} fill="url(#nobands)" />
      {bands.map(({ from, to }, i) => {
        const [left, right] = [x(from ?? -Infinity), x(to === null ? Infinity : to + step)];
        return (
          <g key={i}>
            <rect
              className={`band ${i % 2 ? 'odd' : 'even'}`}
              x={left}
              y={HEAD}
              width={Math.max(0, right - left)}
              height={HEIGHT}
            />
          </g>
        );
      })}
      {bars.map(({ from, to, count }) => (
        <rect
          key={from}
          className="bar"
          x={x(from) + 0.4}
          y={HEAD + HEIGHT - (count / most) * (HEIGHT - 6)}
          width={Math.max(0.6, x(to) - x(from) - 0.8)}
          height={(count / most) * (HEIGHT - 6)}
        />
      ))}
      {ghost !== null && <line className="ghost" x1={x(ghost)} x2={x(ghost)} y1={HEAD} y2={HEAD + HEIGHT} />}
      {edges.map((one, i) => (
        <g key={`${one.at} ${one.below}`} className={`edge${i === here ? ' at' : ''}`}>
          <line x1={x(one.at)} x2={x(one.at)} y1={HEAD - 4} y2={HEAD + HEIGHT} />
          <rect x={x(one.at) - 4} y={HEAD + HEIGHT / 2 - 10} width={8} height={20} rx={2} />
        </g>
      ))}
    </>
  );
}
