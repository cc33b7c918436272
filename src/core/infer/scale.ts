import { isBlank } from '../read/looks';
import type { Tally } from '../tally/tally';
import { digitForm } from './edges';
import { familyOf } from './stem';

/** The ends of a short scale of whole numbers. */
export interface Scale {
  low: number;
  high: number;
}

/** A scale has so many steps. */
export const LEAST_CODES = 3;
export const MOST_CODES = 11;
const MOST_TEXTS = 20;
/** Rows that hold something else than whole numbers, such as "n/a". */
const MOST_STRAY = 0.05;
/** Items that are a battery. */
export const LEAST_ITEMS = 4;

/** The scale that a variable seems to answer on; codes for no answer beyond a gap are left out. `null` where it holds anything else. */
export function scaleOf({ texts, counts, rows }: Tally): Scale | null {
  if (texts.length > MOST_TEXTS) return null;
  const values: number[] = [];
  let stray = 0;
  texts.forEach((text, i) => {
    const value = isBlank(text) ? NaN : Number(text);
    if (Number.isInteger(value)) values.push(value);
    else if (!isBlank(text)) stray += counts[i];
  });
  const held = values.filter((value) => value >= 0).sort((a, b) => a - b);
  // Codes for no answer stand together beyond a gap: 98 and 99 after 5.
  const beyond = held.findIndex(
    (value, i) => i > 0 && value - held[i - 1] > 1 && held.slice(i).every((code) => digitForm(code) > 0),
  );
  const scale = beyond < 0 ? held : held.slice(0, beyond);
  const [low, high] = [scale[0], scale[scale.length - 1]];
  return stray > rows * MOST_STRAY ||
    scale.length < LEAST_CODES ||
    scale.length > MOST_CODES ||
    low > 1 ||
    high - low + 1 > scale.length + 1
    ? null
    : { low, high };
}

/** How many variables of the same stem answer on the same scale, the variable itself among them; 0 where they are no battery. */
export function itemsAlike(
  name: string,
  names: Iterable<string>,
  scale: (name: string) => Scale | null,
): number {
  const own = scale(name);
  if (!own) return 0;
  const alike = familyOf(name, names).filter((other) => {
    const one = scale(other);
    return one !== null && one.low === own.low && one.high === own.high;
  }).length;
  return alike >= LEAST_ITEMS ? alike : 0;
}
