'use client';

import { figure } from '../../core/handoff/words';

/** Five numbers that a box is drawn of. */
export interface Five {
  min: number;
  q1: number;
  median: number;
  q3: number;
  max: number;
}

const WIDTH = 300;

/** Five numbers of a summary, where it has them. */
export function fiveOf(summary: { [K in keyof Five]: number | null } | null | undefined): Five | null {
  if (!summary) return null;
  const { min, q1, median, q3, max } = summary;
  return min === null || q1 === null || median === null || q3 === null || max === null
    ? null
    : { min, q1, median, q3, max };
}

/** The stretch that holds all boxes, cut where single values lie far beyond the rest: three quartile ranges out. */
export function scaleOf(all: readonly (Five | null)[]): readonly [number, number] {
  const boxes = all.filter((one) => one !== null);
  const low = Math.min(...boxes.map(({ min, q1, q3 }) => Math.max(min, q1 - 3 * Math.max(q3 - q1, 0))));
  const high = Math.max(...boxes.map(({ max, q1, q3 }) => Math.min(max, q3 + 3 * Math.max(q3 - q1, 0))));
  return boxes.length === 0 ? [0, 1] : high > low ? [low, high] : [low - 0.5, low + 0.5];
}

/** The quartiles and median as a box, and lines to the lowest and highest value; a line that goes on beyond the scale has no end. */
export function Box({ five, scale, small }: { five: Five; scale?: readonly [number, number]; small?: true }) {
  const { min, q1, median, q3, max } = five;
  const [low, high] = scale ?? [min, max];
  const x = (value: number): number =>
    4 + ((WIDTH - 8) * (Math.max(low, Math.min(high, value)) - low)) / (high - low || 1);
  const end = (value: number): string => (value < low || value > high ? '' : `M${x(value)} 7v12`);
  return (
    <svg
      className={small ? 'box small' : 'box'}
      viewBox={`0 0 ${WIDTH} 26`}
      preserveAspectRatio="none"
      role="img"
      aria-label={`Box summary: from ${figure(min)} to ${figure(max)}, half of the rows from ${figure(q1)} to ${figure(q3)}, median ${figure(median)}`}
    >
      <path d={`M${x(min)} 13H${x(q1)}M${x(q3)} 13H${x(max)}${end(min)}${end(max)}`} />
      <rect x={x(q1)} y={4} width={Math.max(1, x(q3) - x(q1))} height={18} />
      <path className="middle" d={`M${x(median)} 3v20`} />
    </svg>
  );
}
