import { levelAt, valuesIn, type LevelList } from '../infer/level-list';

/** What the values of an identifier look like. */
export interface Identity {
  /** Patterns of characters (`9` a digit, `a` and `A` a letter, others as they stand), the most frequent first, with the share of values. */
  patterns: { pattern: string; share: number }[];
  /** Patterns beyond those. */
  more: number;
  /** Numbers that are left out between the lowest and the highest, where the values are a sequence; else `null`. */
  sequence: { missing: number; first: number[] } | null;
}

const MOST_PATTERNS = 4;
/** Of more values than this, every second, third … is looked at. */
const MOST_LOOKED_AT = 20_000;
/** Runs of one sign longer than this are written as its number. */
const MOST_REPEATED = 4;
/** A sequence with more holes than this share is none. */
const MOST_HOLES = 0.5;
const MOST_NAMED = 5;

/** `RR-00317` is `AA-99999`. */
export function patternOf(text: string): string {
  const signs = text
    .replace(/\p{L}/gu, (letter) => (letter === letter.toUpperCase() ? 'A' : 'a'))
    .replace(/\p{Nd}/gu, '9');
  return signs
    .replace(/9{5,}|a{5,}|A{5,}/g, (run) => (run.length > MOST_REPEATED ? `${run[0]}×${run.length} ` : run))
    .trim();
}

export function identityOf(valid: LevelList): Identity {
  const patterns = new Map<string, number>();
  const step = Math.max(1, Math.floor(valid.length / MOST_LOOKED_AT));
  let looked = 0;
  for (let i = 0; i < valid.length; i += step, looked++) {
    const pattern = patternOf(levelAt(valid, i).code);
    patterns.set(pattern, (patterns.get(pattern) ?? 0) + 1);
  }
  const sorted = [...patterns].sort((a, b) => b[1] - a[1]);
  return {
    patterns: sorted
      .slice(0, MOST_PATTERNS)
      .map(([pattern, values]) => ({ pattern, share: values / looked })),
    more: Math.max(0, sorted.length - MOST_PATTERNS),
    sequence: sequenceOf(valid),
  };
}

function sequenceOf(valid: LevelList): Identity['sequence'] {
  if (valid.length < 2) return null;
  const values = valuesIn(valid);
  if (!values.every(Number.isSafeInteger)) return null;
  const [low, high] = [values[0], values[values.length - 1]];
  const missing = high - low + 1 - values.length;
  if (missing > (high - low + 1) * MOST_HOLES) return null;
  const first: number[] = [];
  for (let i = 1; i < values.length && first.length < MOST_NAMED; i++)
    for (let n = values[i - 1] + 1; n < values[i] && first.length < MOST_NAMED; n++) first.push(n);
  return { missing, first };
}
