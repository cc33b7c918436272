import { isBlank } from '../read/looks';
import type { Tally } from '../tally/tally';
import { digitForm } from './edges';
import { stemOf } from './stem';
import { putUnder } from '../extract/put-under';

/** The whole numbers that a variable answers with, where they are few. */
export interface Scale {
  low: number;
  high: number;
  /** How many of them it holds. */
  codes: number;
}

/** Variables of related names that answer on one short scale. */
export interface Battery {
  /** How many, the variable itself among them. */
  items: number;
  /** The ends of the scale that most of them share. */
  low: number;
  high: number;
}

/** With fewer steps a scale tells little; it has at most so many. */
export const LEAST_CODES = 3;
export const MOST_CODES = 11;
const MOST_TEXTS = 20;
const HIGHEST = 20;
/** Rows that hold something else than whole numbers, such as "n/a". */
const MOST_STRAY = 0.05;
/** Items that are a battery. */
export const LEAST_ITEMS = 4;
/** So many of the related variables share the scale. */
const MOST_SHARE = 0.6;

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
  return stray > rows * MOST_STRAY || scale.length === 0 || scale.length > MOST_CODES || high > HIGHEST
    ? null
    : { low, high, codes: scale.length };
}

/** Letters of an ending that several names share: "eggsfreq", "milkfreq". */
const ENDING = 4;

/** Which variables have names that are related, by their stem or by their ending. */
export class Families {
  private readonly byStem = new Map<string, string[]>();
  private readonly byEnding = new Map<string, string[]>();

  constructor(names: Iterable<string>) {
    for (const name of names) {
      add(this.byStem, stemOf(name), name);
      add(this.byEnding, endingOf(name), name);
    }
  }

  /** The name itself and its relatives: those of its stem, and those of its ending. */
  of(name: string): string[][] {
    return [this.byStem.get(stemOf(name) ?? ''), this.byEnding.get(endingOf(name) ?? '')].flatMap((found) =>
      found ? [found] : [],
    );
  }
}

function add(to: Map<string, string[]>, key: string | null, name: string): void {
  if (key !== null) putUnder(to, key, name);
}

const endingOf = (name: string): string | null =>
  new RegExp(`\\p{L}[_.]?(\\p{L}{${ENDING}})$`, 'u').exec(name)?.[1].toLowerCase() ?? null;

/** What was found of families, by the list of their names: it is the same for each of their members. */
export type FamilyScales = Map<readonly string[], Battery | null>;

/**
 * The battery that a variable is an item of: relatives most of which answer on one scale, the variable itself on some of
 * its steps. `null` where there is none.
 * @param found of families before, with the same scales
 */
export function batteryOf(
  name: string,
  families: Families,
  scale: (name: string) => Scale | null,
  found: FamilyScales = new Map(),
): Battery | null {
  const own = scale(name);
  if (!own) return null;
  for (const family of families.of(name)) {
    let battery = found.get(family);
    if (battery === undefined) found.set(family, (battery = batteryIn(family, scale)));
    if (battery && own.low >= battery.low && own.high <= battery.high) return battery;
  }
  return null;
}

function batteryIn(family: readonly string[], scale: (name: string) => Scale | null): Battery | null {
  const scales = family.flatMap((other) => scale(other) ?? []);
  if (scales.length < LEAST_ITEMS) return null;
  const widest = mostFrequent(scales);
  if (!widest) return null;
  const items = scales.filter(({ low, high }) => low >= widest.low && high <= widest.high).length;
  return items >= LEAST_ITEMS && items >= family.length * MOST_SHARE
    ? { items, low: widest.low, high: widest.high }
    : null;
}

/** The scale that the most of them share, of equally frequent ones the longest. */
function mostFrequent(scales: readonly Scale[]): Scale | null {
  const counts = new Map<string, [number, Scale]>();
  for (const one of scales) {
    const key = `${one.low} ${one.high}`;
    counts.set(key, [(counts.get(key)?.[0] ?? 0) + 1, one]);
  }
  const [found] = [...counts.values()].sort(
    ([a, one], [b, two]) => b - a || two.high - two.low - (one.high - one.low),
  );
  return found && found[0] > 1 ? found[1] : null;
}
