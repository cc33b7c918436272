import { decimalOf } from './decimal';

/** A band by range as it is being made: values as a variable has them; an open end is `null`. */
export interface Range {
  from: number | null;
  to: number | null;
  code: string;
  label: string;
}

/** Where something ends or begins on the drawn distribution: the first value of what lies above it. */
export interface Edge {
  at: number;
  /** Places of the bands below and above; `null` where there is none. */
  below: number | null;
  above: number | null;
}

/** Digits behind the point beyond which values are not told apart by a step. */
const MOST_DIGITS = 9;

/** The least by which two values of a variable differ: 1 of whole numbers, days and seconds, else a unit of the last decimal written. */
export function stepOf(values: ArrayLike<number>): number {
  let digits = 0;
  for (let i = 0; i < values.length && digits < MOST_DIGITS; i++) {
    if (Number.isInteger(values[i])) continue;
    digits = Math.max(digits, Math.min(MOST_DIGITS, decimalOf(values[i]).digits));
  }
  return Number(`1e-${digits}`);
}

/** A value moved to the grid of what is written. */
export function onGrid(value: number, step: number): number {
  const digits = decimalOf(step).digits;
  return Number((Math.round(value / step) * step).toFixed(digits));
}

const before = (value: number, step: number): number => onGrid(value - step, step);
const after = (value: number, step: number): number => onGrid(value + step, step);

/** All edges, upwards. Two bands that touch have one edge between them; a gap has one at either end. */
export function edgesOf(bands: readonly Range[], step: number): Edge[] {
  const edges = new Map<number, Edge>();
  const edge = (at: number): Edge => {
    let known = edges.get(at);
    if (!known) edges.set(at, (known = { at, below: null, above: null }));
    return known;
  };
  bands.forEach(({ from, to }, i) => {
    if (from !== null) edge(from).above = i;
    if (to !== null) edge(after(to, step)).below = i;
  });
  return [...edges.values()].sort((a, b) => a.at - b.at);
}

/** The band that holds a value; −1 where none does. */
export const bandAt = (bands: readonly Range[], value: number): number =>
  bands.findIndex(({ from, to }) => (from === null || value >= from) && (to === null || value <= to));

/** Moves an edge, no further than leaves each band one value. What lies on either side moves with it. */
export function withMoved(bands: readonly Range[], edge: Edge, to: number, step: number): Range[] {
  const { below, above } = edge;
  const lower = below === null ? null : bands[below];
  const upper = above === null ? null : bands[above];
  const others = bands.filter((_, i) => i !== below && i !== above);
  // A band keeps one value at least, and takes none from those beyond the two.
  let low = lower && lower.from !== null ? after(lower.from, step) : -Infinity;
  let high = upper && upper.to !== null ? upper.to : Infinity;
  for (const other of others) {
    if (other.to !== null && other.to < edge.at) low = Math.max(low, after(other.to, step));
    if (other.from !== null && other.from >= edge.at) high = Math.min(high, other.from);
  }
  const at = onGrid(Math.max(low, Math.min(high, to)), step);
  return bands.map((band, i) =>
    i === below ? { ...band, to: before(at, step) } : i === above ? { ...band, from: at } : band,
  );
}

/** Splits the band that holds a value in two: the value is the first of the upper one. @returns the same where nothing can be split */
export function withSplit(bands: readonly Range[], at: number, step: number): readonly Range[] {
  const value = onGrid(at, step);
  const place = bandAt(bands, value);
  if (place < 0) return bands;
  const band = bands[place];
  if (band.from !== null && value <= band.from) return bands;
  return renumbered(bands, [
    ...bands.slice(0, place),
    { ...band, to: before(value, step) },
    { from: value, to: band.to, code: freeCode(bands), label: '' },
    ...bands.slice(place + 1),
  ]);
}

/** Makes one band of a band and the next; the lower one’s code and label stay. */
export function withMerged(bands: readonly Range[], place: number): readonly Range[] {
  const [lower, upper] = [bands.at(place), bands.at(place + 1)];
  if (place < 0 || !lower || !upper) return bands;
  return renumbered(bands, [...bands.slice(0, place), { ...lower, to: upper.to }, ...bands.slice(place + 2)]);
}

/** Removes an edge: two bands become one, or a band at the end goes on beyond it. */
export function withoutEdge(bands: readonly Range[], { below, above }: Edge): readonly Range[] {
  if (below !== null && above !== null) return withMerged(bands, Math.min(below, above));
  return bands.map((band, i) =>
    i === below ? { ...band, to: null } : i === above ? { ...band, from: null } : band,
  );
}

/** Bands between edges, open at both ends, numbered from 1. @param edges the first value of each band but the lowest */
export function bandsBetween(edges: readonly number[], step: number): Range[] {
  const inner = [...new Set(edges.map((edge) => onGrid(edge, step)))].sort((a, b) => a - b);
  return [null, ...inner].map((from, i) => ({
    from,
    to: i < inner.length ? before(inner[i], step) : null,
    code: String(i + 1),
    label: '',
  }));
}

/** Bands that were numbered in their order are so again. */
function renumbered(old: readonly Range[], bands: readonly Range[]): readonly Range[] {
  return old.every(({ code }, i) => code === String(i + 1))
    ? bands.map((band, i) => ({ ...band, code: String(i + 1) }))
    : bands;
}

function freeCode(bands: readonly { code: string }[]): string {
  const taken = new Set(bands.map(({ code }) => code));
  for (let i = 1; ; i++) if (!taken.has(String(i))) return String(i);
}
