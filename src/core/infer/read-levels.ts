import { BETWEEN_PULSES, pulse } from '../extract/pulse';
import { noNumbers } from '../extract/no-numbers';
import { placeIn } from '../extract/sorted';
import { NumberTexts, textAt } from '../extract/text-list';
import { inTextOrder } from '../extract/text-order';
import { isNumericStorage } from '../extract/words';
import { readNumber } from '../read/number';
import { LOOK, looksOf } from '../read/text-looks';
import type { Tally } from '../tally/tally';
import { readDate } from './dates';
import type { Declarations } from './declared';
import { LevelArrays, NO_OTHERS, STANDING, type Told } from './level-list';
import type { Levels } from './levels';
import type { Written } from './storage';

/** Reads each distinct text of a tally once and gathers what has the same value. */
export function levelsOf(tally: Tally, written: Written, declarations: Declarations): Levels {
  const { storage } = written;
  const numeric = isNumericStorage(storage);
  const { texts, counts } = tally;
  const looks = looksOf(texts);
  // Under most forms of numbers a plain one is what it looks like.
  const plain = numeric && written.numberForm.decimal === '.' && written.numberForm.implied === 0;
  const known = plain ? inOrder(tally) : null;
  if (known) return { rows: tally.rows, blank: known.blank, levels: leveled(known, 0, tally, declarations) };
  const numbers = new Float64Array(numeric ? texts.length : 0);
  const places = new Uint32Array(numbers.length);
  let merging = 0;
  const dated: { value: number; at: number }[] = [];
  const words: number[] = [];
  let blank = 0;
  for (let i = 0; i < texts.length; i++) {
    if ((i & (BETWEEN_PULSES - 1)) === 0) pulse();
    if (looks.bits[i] & LOOK.blank) {
      blank += counts[i];
      continue;
    }
    const value =
      plain && Number.isFinite(looks.values[i]) ? looks.values[i] : valueOf(textAt(texts, i), written);
    // Whole numbers too large for a double stay apart by their text, and so do several ways to write one day.
    if (numeric && value !== null && Math.abs(value) <= Number.MAX_SAFE_INTEGER) {
      numbers[merging] = value;
      places[merging++] = i;
    } else if (value === null) words.push(i);
    else dated.push({ value, at: i });
  }
  const merged = numbers.subarray(0, merging);
  // Numbers that are written alike are in the order of their digits, which are whole.
  const alike = plain && texts instanceof NumberTexts && merging === texts.length - texts.odd.size;
  const ranked = alike ? digitsAt(texts, places.subarray(0, merging)) : merged;
  let found: Found;
  if (merging + dated.length === 0) found = wordLevels(words, tally);
  else {
    const gathered = numberLevels(merged, ranked, places, tally, dated.length + words.length);
    addDated(gathered, dated, tally);
    addWords(gathered, words, tally);
    found = gathered;
  }
  // Words are valid unless something else was expected.
  const unread = storage === 'text' ? 0 : words.length;
  return { rows: tally.rows, blank, levels: leveled(found, unread, tally, declarations) };
}

/** @param unread of the levels, the last that could not be read */
function leveled(found: Found, unread: number, { texts }: Tally, declarations: Declarations): LevelArrays {
  const { ats, length, values, counts } = found;
  const standings = new Uint8Array(length);
  standings.fill(STANDING.unreadable, length - unread);
  const told = new Map<number, Told>();
  for (const [place, spellings] of found.respelt)
    told.set(place, { label: null, reason: null, declaredBy: null, spellings });
  if (!declarations.none)
    for (let i = 0; i < length; i++) {
      const said = declarations.of(textAt(texts, ats === 'same' ? i : ats[i]));
      if (!said) continue;
      told.set(i, { ...said, spellings: told.get(i)?.spellings ?? NO_OTHERS });
      if (said.declaredBy) standings[i] = STANDING[said.reason === 'not-asked' ? 'not-asked' : 'missing'];
    }
  return LevelArrays.of({ texts, ats, values, counts, standings, told });
}

/** Levels of numbers that are all written alike and tallied in their order, with nothing beside them but blanks at the end. */
function inOrder({ texts, counts }: Tally): (Found & { blank: number }) | null {
  if (!(texts instanceof NumberTexts)) return null;
  const { digits } = texts;
  const { values, bits } = looksOf(texts);
  const length = digits.length - texts.odd.size;
  for (let i = 0, before = -Infinity; i < length; before = digits[i++])
    if (!(digits[i] > before)) return null;
  let blank = 0;
  for (let i = length; i < digits.length; i++) {
    if (!(bits[i] & LOOK.blank)) return null;
    blank += counts[i];
  }
  return {
    ats: 'same',
    values: values.subarray(0, length),
    counts: counts.subarray(0, length),
    length,
    respelt: new Map(),
    blank,
  };
}

/** Levels of words alone, in code unit order. */
function wordLevels(words: readonly number[], { texts, counts }: Tally): Found {
  const ats = inTextOrder(Uint32Array.from(words), texts);
  const { length } = ats;
  const common = { values: noNumbers(length), length, respelt: new Map<number, string[]>() };
  if (length === texts.length && ats.every((at, i) => at === i)) return { ...common, ats: 'same', counts };
  const rows = new Float64Array(length);
  for (let i = 0; i < length; i++) rows[i] = counts[ats[i]];
  return { ...common, ats, counts: rows };
}

/** Levels that were gathered: the place of each code among the texts, its value, its rows. */
interface Found {
  /** The same where all texts are levels in their order. */
  ats: Uint32Array | 'same';
  /** NaN for words. */
  values: Float64Array;
  counts: Float64Array;
  length: number;
  /** Spellings of the levels that have several, the most frequent first. */
  respelt: Map<number, string[]>;
}
/** The same while they are gathered. */
interface Gathered extends Found {
  ats: Uint32Array;
}

const digitsAt = ({ digits }: NumberTexts, places: Uint32Array): Float64Array =>
  places.length === digits.length ? digits : Float64Array.from(places, (place) => digits[place]);

/**
 * Levels of numbers, ascending; what has the same value is one.
 * @param ranked numbers in the same order @param more levels that will come behind them
 */
function numberLevels(
  numbers: Float64Array,
  ranked: Float64Array,
  places: Uint32Array,
  { texts, counts }: Tally,
  more: number,
): Gathered {
  const placeOf = placing(ranked);
  const n = numbers.length;
  const ats = new Uint32Array(placeOf.places + more);
  const values = new Float64Array(ats.length).fill(NaN);
  const rows = new Float64Array(ats.length);
  const several = new Map<number, number[]>();
  for (let i = 0; i < n; i++) {
    const rank = placeOf.of(ranked[i], i);
    const at = places[i];
    if (rows[rank] === 0) {
      ats[rank] = at;
      values[rank] = numbers[i];
    } else {
      const known = several.get(rank);
      if (known) known.push(at);
      else several.set(rank, [ats[rank], at]);
    }
    rows[rank] += counts[at];
  }
  for (const [rank, some] of several) {
    some.sort((a, b) => counts[b] - counts[a]);
    ats[rank] = some[0];
  }
  // Places that no number has are taken out.
  let length = 0;
  const respelt = new Map<number, string[]>();
  for (let rank = 0; rank < placeOf.places; rank++) {
    if (rows[rank] === 0) continue;
    const some = several.size > 0 ? several.get(rank) : undefined;
    if (some)
      respelt.set(
        length,
        some.map((at) => textAt(texts, at)),
      );
    if (length < rank) {
      ats[length] = ats[rank];
      values[length] = values[rank];
      rows[length] = rows[rank];
    }
    length++;
  }
  const all = length + more;
  values.fill(NaN, length);
  return {
    ats: fitting(ats, all),
    values: fitting(values, all),
    counts: fitting(rows, all),
    length,
    respelt,
  };
}

/** An array of a length, without keeping room that is not used. */
const fitting = <T extends Float64Array | Uint32Array>(array: T, length: number): T =>
  (array.length === length ? array : array.slice(0, length)) as T;

/** Adds what has a value but stays apart by its text, in value order, then in code unit order. */
function addDated(found: Gathered, dated: { value: number; at: number }[], { texts, counts }: Tally): void {
  if (dated.length === 0) return;
  const { ats, values, counts: rows, respelt, length } = found;
  const added = dated.map(({ value, at }) => ({ value, at, rows: counts[at], spellings: NO_OTHERS }));
  const before = Array.from({ length }, (_, i) => ({
    value: values[i],
    at: ats[i],
    rows: rows[i],
    spellings: respelt.get(i) ?? NO_OTHERS,
  }));
  respelt.clear();
  const all = [...before, ...added].sort(
    (a, b) => a.value - b.value || (textAt(texts, a.at) < textAt(texts, b.at) ? -1 : 1),
  );
  for (const [i, one] of all.entries()) {
    ats[i] = one.at;
    values[i] = one.value;
    rows[i] = one.rows;
    if (one.spellings.length > 0) respelt.set(i, [...one.spellings]);
  }
  found.length = all.length;
}

/** Adds words, in code unit order. */
function addWords(found: Gathered, words: number[], { texts, counts }: Tally): void {
  for (const at of inTextOrder(Uint32Array.from(words), texts)) {
    found.ats[found.length] = at;
    found.counts[found.length++] = counts[at];
  }
}

/** Whole numbers over a range of so many times their number have a place each; others are sought. */
const DENSE = 4;
/** Places in ascending order for numbers, the same for the same number; some may stay empty. */
function placing(numbers: Float64Array): { places: number; of: (value: number, at: number) => number } {
  let [low, high, whole, rising] = [Infinity, -Infinity, true, true];
  for (let i = 0; i < numbers.length && (whole || rising); i++) {
    const value = numbers[i];
    whole &&= Number.isInteger(value);
    rising &&= value > high;
    if (value < low) low = value;
    if (value > high) high = value;
  }
  if (rising) return { places: numbers.length, of: (_, at) => at };
  if (whole && high - low < numbers.length * DENSE)
    return { places: high - low + 1, of: (value) => value - low };
  const sorted = numbers.slice().sort();
  return { places: sorted.length, of: (value) => placeIn(sorted, value) };
}

/** The number, day or second that a text stands for; `null` where it stands for none, and for words. */
export function valueOf(text: string, { storage, dateForm, numberForm, utc }: Written): number | null {
  if (isNumericStorage(storage)) return readNumber(text, numberForm);
  if (storage === 'text' || storage === 'empty') return null;
  const date = readDate(text, dateForm, utc);
  if (!date) return null;
  if (date.storage === storage) return date.value;
  // A date among dates with times is its midnight; anything else is another kind of thing.
  return storage === 'datetime' && date.storage === 'date' ? date.value * 86400 : null;
}
