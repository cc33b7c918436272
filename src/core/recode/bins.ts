import type { Level, LevelList } from '../infer/level-list';
import { edgeText, stepsBetween } from './decimal';

/** Bins of equal width, upwards from a start. */
export interface Bins {
  size: number;
  start: number;
}

/** Bins that a table puts a measure into are about so many. */
const ABOUT = 10;

/** 1, 2 or 5 times a power of ten, so that about `about` of it make up a stretch. */
function roundSize(stretch: number, about = ABOUT): number {
  if (!(stretch > 0)) return 1;
  const power = Math.floor(Math.log10(stretch / about));
  const size = [1, 2, 5, 10].find((times) => times * 10 ** power * about >= stretch * 0.8) ?? 10;
  return Number((size * 10 ** power).toPrecision(12));
}

/** Bins of a round size that begin at a round number at or below the lowest. @param values ascending, at least one */
export function roundBins(values: Float64Array): Bins {
  const [low, high] = [values[0], values[values.length - 1]];
  const whole = values.every((value) => Number.isInteger(value));
  const size = Math.max(whole ? 1 : 0, roundSize(high - low));
  return { size, start: Number((Math.floor(low / size) * size).toPrecision(12)) };
}

/**
 * For each place of the levels that a bin holds its code, which is its lower edge, and its label, which is the lowest and the
 * highest value that it really holds. A bin holds its lower edge and not its upper, in exact decimals.
 */
export function binned(
  { size, start }: Bins,
  levels: LevelList,
): Map<number, { code: string; label: string }> {
  const bins = new Map<bigint, { places: number[]; low: Level; high: Level }>();
  levels.forEach((level, place) => {
    const { standing, value } = level;
    if (standing !== 'valid' || value === null) return;
    const steps = stepsBetween(value, start, size);
    if (steps < 0n) return;
    const bin = bins.get(steps);
    if (!bin) bins.set(steps, { places: [place], low: level, high: level });
    else {
      bin.places.push(place);
      if (value < (bin.low.value ?? 0)) bin.low = level;
      if (value > (bin.high.value ?? 0)) bin.high = level;
    }
  });
  const found = new Map<number, { code: string; label: string }>();
  for (const [steps, { places, low, high }] of bins) {
    const label = low.value === high.value ? low.code : `${low.code} to ${high.code}`;
    for (const place of places) found.set(place, { code: edgeText(start, size, steps), label });
  }
  return found;
}
