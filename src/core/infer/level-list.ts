import { textAt, type TextList } from '../extract/text-list';
import type { Reason } from '../extract/words';
import { looksOf } from '../read/text-looks';

/** What a cell's text is to the analysis. Every text is exactly one of these. */
export type Standing = 'blank' | 'unreadable' | 'missing' | 'not-asked' | 'valid';

/** One value of a variable: all its spellings, and the rows that hold it. */
export interface Level {
  /** Raw text of the most frequent spelling. */
  code: string;
  /** All spellings, the most frequent first, where there are several; else empty. */
  spellings: readonly string[];
  /** Place of `code` among the texts that were tallied, where it is known. */
  at?: number;
  /** The number, the day, or the second; `null` for words. */
  value: number | null;
  label: string | null;
  count: number;
  standing: Exclude<Standing, 'blank'>;
  reason: Reason | null;
  declaredBy: 'codebook' | 'ruling' | null;
}

/** Where a level has but one spelling. */
export const NO_OTHERS: readonly string[] = [];

/**
 * Levels in their order, asked as one asks a list: an array of them is one, and so are arrays of their values and counts, which
 * make a level only where one is looked at (`LevelArrays`).
 */
export interface LevelList extends Iterable<Level> {
  readonly length: number;
  at(place: number): Level | undefined;
  slice(from?: number, to?: number): LevelList;
  filter(keep: (level: Level, place: number) => boolean): Level[];
  map<T>(to: (level: Level, place: number) => T): T[];
  flatMap<T>(to: (level: Level, place: number) => T | readonly T[]): T[];
  forEach(look: (level: Level, place: number) => void): void;
  reduce<T>(add: (before: T, level: Level, place: number) => T, start: T): T;
  some(is: (level: Level, place: number) => boolean): boolean;
  every(is: (level: Level, place: number) => boolean): boolean;
  find(is: (level: Level, place: number) => boolean): Level | undefined;
}

/** The rows that hold each level. */
export const countsIn = (levels: LevelList): Float64Array =>
  levels instanceof LevelArrays ? levels.counts : Float64Array.from(levels, ({ count }) => count);
/** The value of each level; NaN for words. */
export const valuesIn = (levels: LevelList): Float64Array =>
  levels instanceof LevelArrays ? levels.values : Float64Array.from(levels, ({ value }) => value ?? NaN);

/** The level at a place that the list has. */
export const levelAt = (levels: LevelList, place: number): Level => levels.at(place) as Level;

/** What a level can be, and the byte that is kept of it. */
const STANDINGS = ['valid', 'unreadable', 'missing', 'not-asked'] as const;
export const STANDING: Readonly<Record<Level['standing'], number>> = {
  valid: 0,
  unreadable: 1,
  missing: 2,
  'not-asked': 3,
};

/** What is told of a level beyond its code, value and count, where anything is. */
export type Told = Pick<Level, 'label' | 'reason' | 'declaredBy' | 'spellings'>;
const NOTHING: Told = { label: null, reason: null, declaredBy: null, spellings: NO_OTHERS };

/** What texts show of which something may hold, as bits of `LOOK`: one of some, where any are named, and none of others. */
export interface Shown {
  some?: number;
  none?: number;
}

/** Arrays that hold levels, the same place for each level in all of them. */
export interface Held {
  /**
   * Texts that were tallied, and the place of each level's code among them, the same where all texts are levels in their
   * order; `null` where the texts are but the codes.
   */
  texts: TextList;
  ats: Uint32Array | 'same' | null;
  /** NaN for none. */
  values: Float64Array;
  counts: Float64Array;
  /** As numbered in `STANDING`. */
  standings: Uint8Array;
  told: ReadonlyMap<number, Told>;
}
/** Levels that were made, by their place: the same one is given each time, in the list and in its parts. */
type Made = Map<number, Level>;

/** Levels as arrays of their values, counts and standings; a level is made where it is looked at. */
export class LevelArrays implements LevelList {
  /** NaN for a level that is no number. */
  readonly values: Float64Array;
  /** Rows that hold each. */
  readonly counts: Float64Array;
  private readonly standings: Uint8Array;

  private constructor(
    private readonly root: Held & { made: Made; looks?: Uint16Array },
    /** Places in the root: some of them, or a run from `first` on. */
    private readonly places: Uint32Array | null,
    private readonly first: number,
    length: number,
  ) {
    const { values, counts, standings } = root;
    const run = first === 0 && length === values.length;
    const end = first + length;
    this.values = places
      ? pick(values, places, new Float64Array(length))
      : run
        ? values
        : values.subarray(first, end);
    this.counts = places
      ? pick(counts, places, new Float64Array(length))
      : run
        ? counts
        : counts.subarray(first, end);
    this.standings = places
      ? pick(standings, places, new Uint8Array(length))
      : run
        ? standings
        : standings.subarray(first, end);
  }

  static of(held: Held): LevelArrays {
    return new LevelArrays({ ...held, made: new Map() }, null, 0, held.values.length);
  }

  /** The same from levels that are there. */
  static from(levels: LevelList): LevelArrays {
    if (levels instanceof LevelArrays) return levels;
    const all = [...levels];
    const held: Held = {
      texts: all.map(({ code }) => code),
      ats: null,
      values: Float64Array.from(all, ({ value }) => value ?? NaN),
      counts: Float64Array.from(all, ({ count }) => count),
      standings: Uint8Array.from(all, ({ standing }) => STANDING[standing]),
      told: new Map(),
    };
    return new LevelArrays({ ...held, made: new Map(all.entries()) }, null, 0, all.length);
  }

  get length(): number {
    return this.values.length;
  }
  /** The texts among which the codes are: those of all cells that were tallied, or the codes. */
  get texts(): TextList {
    return this.root.texts;
  }
  code(place: number): string {
    return textAt(this.root.texts, this.inTexts(this.placeOf(place)));
  }
  /** The code of each. */
  get codes(): string[] {
    return Array.from({ length: this.length }, (_, place) => this.code(place));
  }
  /** What the code shows at one look, as bits of `LOOK`. */
  look(place: number): number {
    this.root.looks ??= looksOf(this.root.texts).bits;
    return this.root.looks[this.inTexts(this.placeOf(place))];
  }
  label(place: number): string | null {
    return this.toldOf(place).label;
  }
  /** All spellings where there are several; else empty. */
  spellings(place: number): readonly string[] {
    return this.toldOf(place).spellings;
  }
  isValid(place: number): boolean {
    return this.standings[place] === STANDING.valid;
  }
  isUnreadable(place: number): boolean {
    return this.standings[place] === STANDING.unreadable;
  }
  standing(place: number): Level['standing'] {
    return STANDINGS[this.standings[place]];
  }
  /** Place of the code among the texts that were tallied; −1 where it is not known. */
  tallied(place: number): number {
    const at = this.placeOf(place);
    return this.root.ats ? this.inTexts(at) : (this.root.made.get(at)?.at ?? -1);
  }
  private toldOf(place: number): Told {
    if (this.root.ats && this.root.told.size === 0) return NOTHING;
    const at = this.placeOf(place);
    return (this.root.ats ? this.root.told.get(at) : this.root.made.get(at)) ?? NOTHING;
  }

  at(place: number): Level | undefined {
    const from = place < 0 ? place + this.length : place;
    return from >= 0 && from < this.length ? this.kept(from) : undefined;
  }

  slice(from = 0, to = this.length): LevelArrays {
    const length = this.length;
    const begin = Math.min(length, from < 0 ? Math.max(0, length + from) : from);
    const end = Math.max(begin, Math.min(length, to < 0 ? length + to : to));
    if (begin === 0 && end === length) return this;
    return this.places
      ? new LevelArrays(this.root, this.places.subarray(begin, end), 0, end - begin)
      : new LevelArrays(this.root, null, this.first + begin, end - begin);
  }

  /** Those of which it holds of the code, as a list: no level is made, and only codes that show what is said are read. */
  whereCode(is: (code: string) => boolean, { some = 0, none = 0 }: Shown = {}): LevelArrays {
    const { any, all } = looksOf(this.root.texts);
    if ((all & none) > 0 || (some > 0 && (any & some) === 0)) return this.slice(0, 0);
    return this.where((place) => {
      const look = this.look(place);
      return (look & none) === 0 && (some === 0 || (look & some) > 0) && is(this.code(place));
    });
  }
  everyCode(is: (code: string) => boolean): boolean {
    for (let i = 0; i < this.length; i++) if (!is(this.code(i))) return false;
    return true;
  }
  /** Whether no code is longer, in code units. */
  hasCodesWithin(most: number): boolean {
    return looksOf(this.root.texts).longest <= most || this.everyCode((code) => code.length <= most);
  }

  /** Levels that are spelt in several ways. */
  get respelt(): Level[] {
    if (this.root.ats && this.root.told.size === 0) return [];
    return [...this.where((place) => this.spellings(place).length > 1)];
  }

  /** Those at which it holds, as a list: no level is made. */
  where(keep: (place: number) => boolean): LevelArrays {
    const found = new Uint32Array(this.length);
    let n = 0;
    for (let i = 0; i < found.length; i++) if (keep(i)) found[n++] = this.placeOf(i);
    return n === found.length ? this : new LevelArrays(this.root, found.slice(0, n), 0, n);
  }

  /** The same levels, of which some cannot be read. */
  unreadableWhere(is: (code: string) => boolean): LevelArrays {
    const changed = this.map((level): Level =>
      is(level.code) ? { ...level, standing: 'unreadable' } : level,
    );
    return LevelArrays.from(changed);
  }

  /** The same levels with other numbers of rows; without those that no row holds. @param counts for each level */
  recounted(counts: ArrayLike<number>): LevelArrays {
    let same = true;
    for (let i = 0; i < this.length && same; i++) same = counts[i] === this.counts[i] && counts[i] > 0;
    if (same) return this;
    const left = this.where((place) => counts[place] > 0);
    const all = new Float64Array(left.length);
    for (let i = 0, n = 0; i < this.length; i++) if (counts[i] > 0) all[n++] = counts[i];
    if (!this.root.ats)
      return LevelArrays.from(
        left.map((level, i) => (level.count === all[i] ? level : { ...level, count: all[i] })),
      );
    const ats = new Uint32Array(left.length);
    const told = new Map<number, Told>();
    for (let i = 0; i < ats.length; i++) {
      ats[i] = left.tallied(i);
      const said = left.toldOf(i);
      if (said !== NOTHING) told.set(i, said);
    }
    return LevelArrays.of({
      ...this.root,
      ats,
      values: left.values,
      counts: all,
      standings: left.standings,
      told,
    });
  }

  *[Symbol.iterator](): Generator<Level> {
    for (let i = 0; i < this.length; i++) yield this.kept(i);
  }
  filter(keep: (level: Level, place: number) => boolean): Level[] {
    const found: Level[] = [];
    for (let i = 0; i < this.length; i++) {
      const level = this.passing(i);
      if (keep(level, i)) found.push(this.keep(i, level));
    }
    return found;
  }
  map<T>(to: (level: Level, place: number) => T): T[] {
    const made = new Array<T>(this.length);
    for (let i = 0; i < this.length; i++) made[i] = to(this.kept(i), i);
    return made;
  }
  flatMap<T>(to: (level: Level, place: number) => T | readonly T[]): T[] {
    const made: T[] = [];
    for (let i = 0; i < this.length; i++) {
      const some = to(this.kept(i), i);
      if (Array.isArray(some)) for (const one of some as readonly T[]) made.push(one);
      else made.push(some as T);
    }
    return made;
  }
  forEach(look: (level: Level, place: number) => void): void {
    for (let i = 0; i < this.length; i++) look(this.kept(i), i);
  }
  reduce<T>(add: (before: T, level: Level, place: number) => T, start: T): T {
    let sum = start;
    for (let i = 0; i < this.length; i++) sum = add(sum, this.kept(i), i);
    return sum;
  }
  some(is: (level: Level, place: number) => boolean): boolean {
    for (let i = 0; i < this.length; i++) if (is(this.passing(i), i)) return true;
    return false;
  }
  every(is: (level: Level, place: number) => boolean): boolean {
    for (let i = 0; i < this.length; i++) if (!is(this.passing(i), i)) return false;
    return true;
  }
  find(is: (level: Level, place: number) => boolean): Level | undefined {
    for (let i = 0; i < this.length; i++) {
      const level = this.passing(i);
      if (is(level, i)) return this.keep(i, level);
    }
    return undefined;
  }

  /** Place among the texts of what is at a place of the root. */
  private inTexts(at: number): number {
    const { ats } = this.root;
    return ats === null || ats === 'same' ? at : ats[at];
  }
  private placeOf(place: number): number {
    return this.places ? this.places[place] : this.first + place;
  }
  /** A level for a look at it; kept only where it was kept before. */
  private passing(place: number): Level {
    const { texts, told, made } = this.root;
    const at = this.placeOf(place);
    const known = made.size > 0 ? made.get(at) : undefined;
    if (known) return known;
    const value = this.values[place];
    const { label, reason, declaredBy, spellings } = (told.size > 0 ? told.get(at) : undefined) ?? NOTHING;
    const tallied = this.inTexts(at);
    return {
      code: textAt(texts, tallied),
      at: tallied,
      spellings,
      // Only NaN is not itself.
      value: value === value ? value : null,
      label,
      count: this.counts[place],
      standing: STANDINGS[this.standings[place]],
      reason,
      declaredBy,
    };
  }
  private keep(place: number, level: Level): Level {
    this.root.made.set(this.placeOf(place), level);
    return level;
  }
  private kept(place: number): Level {
    return this.root.made.get(this.placeOf(place)) ?? this.keep(place, this.passing(place));
  }
}

/** What the array holds at some places. */
function pick<T extends Float64Array | Uint8Array>(from: T, places: Uint32Array, into: T): T {
  for (let i = 0; i < places.length; i++) into[i] = from[places[i]];
  return into;
}
