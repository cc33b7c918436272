import { digitsIn, writtenDigits } from './digits';

/** Texts, asked as one asks a list: an array of them is one, and so are numbers that are written where one is looked at. */
export interface TextList extends Iterable<string> {
  readonly length: number;
  at(place: number): string | undefined;
  map<T>(to: (text: string, place: number) => T): T[];
  forEach(look: (text: string, place: number) => void): void;
  some(is: (text: string, place: number) => boolean): boolean;
  filter(keep: (text: string, place: number) => boolean): string[];
  findIndex(is: (text: string, place: number) => boolean): number;
  reduce<T>(add: (before: T, text: string, place: number) => T, start: T): T;
}

/** The text at a place that the list has. */
export const textAt = (texts: TextList, place: number): string =>
  Array.isArray(texts) ? (texts as readonly string[])[place] : (texts.at(place) as string);

/** Texts as an array: the same where they are one. */
export const textArray = (texts: TextList): readonly string[] =>
  Array.isArray(texts) ? (texts as readonly string[]) : texts instanceof NumberTexts ? texts.all : [...texts];

/**
 * Texts nearly all of which are numbers that can be written in one way alone, with as many decimals: they are held as
 * numbers, and what asks no more than their values makes no text.
 */
export class NumberTexts implements TextList {
  private made: readonly string[] | null = null;

  /**
   * @param digits of each as one whole number, NaN where it is none @param decimals how many of the digits stand behind the point
   * @param odd texts that are none of these, by their place
   */
  constructor(
    readonly digits: Float64Array,
    readonly decimals: number,
    readonly odd: ReadonlyMap<number, string>,
  ) {}

  get length(): number {
    return this.digits.length;
  }
  /** All of them, made once. */
  get all(): readonly string[] {
    return (this.made ??= Array.from(this.digits, (_, place) => this.write(place)));
  }
  at(place: number): string | undefined {
    if (this.made) return this.made[place];
    return place >= 0 && place < this.length ? this.write(place) : undefined;
  }
  map<T>(to: (text: string, place: number) => T): T[] {
    return this.all.map(to);
  }
  /** @param number what all of them come to but the odd ones */
  mapOdd<T>(to: (text: string) => T, number: T): T[] {
    const made = new Array<T>(this.length).fill(number);
    for (const [place, text] of this.odd) made[place] = to(text);
    return made;
  }
  forEach(look: (text: string, place: number) => void): void {
    this.all.forEach(look);
  }
  some(is: (text: string, place: number) => boolean): boolean {
    for (let i = 0; i < this.length; i++) if (is(textAt(this, i), i)) return true;
    return false;
  }
  filter(keep: (text: string, place: number) => boolean): string[] {
    return this.all.filter(keep);
  }
  findIndex(is: (text: string, place: number) => boolean): number {
    for (let i = 0; i < this.length; i++) if (is(textAt(this, i), i)) return i;
    return -1;
  }
  reduce<T>(add: (before: T, text: string, place: number) => T, start: T): T {
    return this.all.reduce(add, start);
  }
  [Symbol.iterator](): Iterator<string> {
    return this.all[Symbol.iterator]();
  }

  /** Some of them, in the order of their places. */
  only(places: readonly number[]): NumberTexts {
    const odd = new Map<number, string>();
    places.forEach((place, i) => {
      const text = this.odd.get(place);
      if (text !== undefined) odd.set(i, text);
    });
    return new NumberTexts(
      Float64Array.from(places, (place) => this.digits[place]),
      this.decimals,
      odd,
    );
  }

  private write(place: number): string {
    const digits = this.digits[place];
    return digits === digits ? writtenDigits(digits, this.decimals) : (this.odd.get(place) ?? '');
  }
}

/** Some of a list's texts, in the order of their places. */
export const textsAt = (texts: TextList, places: readonly number[]): TextList =>
  texts instanceof NumberTexts ? texts.only(places) : places.map((place) => textAt(texts, place));

/** The first place of a text without regard to case; −1 where there is none. */
export function placeInAnyCase(texts: TextList, sought: string): number {
  const folded = sought.toLowerCase();
  const is = (text: string): boolean =>
    text === sought || (text.length === sought.length && text.toLowerCase() === folded);
  if (!(texts instanceof NumberTexts)) return texts.findIndex(is);
  const bytes = encoder.encode(sought);
  const digits = digitsIn(bytes, 0, bytes.length, texts.decimals);
  if (digits === digits) return texts.digits.indexOf(digits);
  let first = -1;
  for (const [place, text] of texts.odd) if (is(text) && (first < 0 || place < first)) first = place;
  return first;
}

const encoder = new TextEncoder();
