'use client';

import { useRef } from 'react';
import Form from 'react-bootstrap/Form';
import { barsOf } from '../../core/handoff/chart';
import { figure, whole } from '../../core/handoff/words';
import type { Sievable } from '../../core/inspect/questions';
import type { ConditionForm } from './conditionForm';
import { endsOf } from './ends';

const WIDTH = 460;
const HEIGHT = 92;

/** Two ends, typed or drawn on the distribution. */
export function Stretch({
  about,
  form,
  change,
}: {
  about: Sievable;
  form: ConditionForm;
  change: (part: Partial<ConditionForm>) => void;
}) {
  const ends = endsOf(about.picture, about.storage === 'integer');
  const bars = about.picture.form === 'none' ? [] : barsOf(about.picture);
  const most = Math.max(1, ...bars.map(({ count }) => count));
  const step = WIDTH / Math.max(1, bars.length);
  const drawn = useRef<number | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const barAt = (x: number): number => {
    const box = svg.current?.getBoundingClientRect();
    const share = box && box.width > 0 ? (x - box.left) / box.width : 0;
    return Math.max(0, Math.min(bars.length - 1, Math.floor(share * bars.length)));
  };
  const take = (a: number, b: number): void => {
    const [low, high] = [ends[Math.min(a, b)], ends[Math.max(a, b)]];
    if (low && high) change({ from: low.from, to: high.to });
  };
  const inside = (i: number): boolean => {
    const end = ends.at(i);
    if (!end || (form.from === '' && form.to === '')) return false;
    return atLeast(end.to, form.from) && atLeast(form.to === '' ? end.from : form.to, end.from);
  };
  return (
    <>
      <div className="d-flex gap-3">
        <Form.Group controlId="condition-from">
          <Form.Label className="mb-1">From, included</Form.Label>
          <Form.Control
            autoFocus
            size="sm"
            autoComplete="off"
            placeholder={about.span ? String(figure(about.span.from, 10)) : 'any'}
            value={form.from}
            onChange={(event) => change({ from: event.target.value })}
          />
        </Form.Group>
        <Form.Group controlId="condition-to">
          <Form.Label className="mb-1">To, included</Form.Label>
          <Form.Control
            size="sm"
            autoComplete="off"
            placeholder={about.span ? String(figure(about.span.to, 10)) : 'any'}
            value={form.to}
            onChange={(event) => change({ to: event.target.value })}
          />
        </Form.Group>
      </div>
      {ends.length > 1 && (
        <>
          <svg
            ref={svg}
            className="stretch"
            viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
            preserveAspectRatio="none"
            role="img"
            aria-label={`Distribution of ${about.name}; draw over it to choose a stretch`}
            onPointerDown={(event) => {
              drawn.current = barAt(event.clientX);
              event.currentTarget.setPointerCapture(event.pointerId);
              take(drawn.current, drawn.current);
            }}
            onPointerMove={(event) => {
              if (drawn.current !== null) take(drawn.current, barAt(event.clientX));
            }}
            onPointerUp={() => {
              drawn.current = null;
            }}
          >
            {bars.map(({ name, count }, i) => (
              <g key={name}>
                <rect
                  className={inside(i) ? 'wash in' : 'wash'}
                  x={i * step}
                  y={0}
                  width={step}
                  height={HEIGHT}
                />
                <rect
                  className={inside(i) ? 'bar in' : 'bar'}
                  x={i * step + 0.5}
                  y={HEIGHT - (count / most) * (HEIGHT - 4)}
                  width={Math.max(0.5, step - 1)}
                  height={(count / most) * (HEIGHT - 4)}
                >
                  <title>{`${name}: ${whole(count)} rows`}</title>
                </rect>
              </g>
            ))}
          </svg>
          <p className="soft small mb-0">
            {bars[0].name} … {bars[bars.length - 1].name}. Draw over the bars, or type; both ends belong to
            it.
          </p>
        </>
      )}
    </>
  );
}

/** Whether one end is not below another, as numbers where both are, else as ISO texts; an empty one is no bound. */
function atLeast(a: string, b: string): boolean {
  if (b === '') return true;
  const [x, y] = [Number(a), Number(b)];
  return Number.isFinite(x) && Number.isFinite(y) ? x >= y : a >= b;
}
