import { lifted, regrouped } from '../extract/coding';
import type { Places } from '../infer/level-coding';
import { LevelArrays } from '../infer/level-list';
import { spellingsOf } from '../infer/levels';
import { valueOf } from '../infer/read-levels';
import { isBlank } from '../read/looks';
import type { Categories, Numbers } from '../rows/records';
import type { Inspected } from './inspected';

/**
 * Places of a variable as categories. @param into the category of each place; −1 for none
 * @param unknown the category of a text that no level has, where only a sample of the rows told the levels
 */
export function categoriesOf(
  variable: string,
  places: Places,
  into: Int32Array,
  size: number,
  unknown: ((text: string) => number) | null = null,
): Categories {
  let byText: Map<string, number> | null = null;
  return {
    variable,
    size,
    of: (text) => {
      byText ??= new Map(
        places.levels.flatMap((level, place) => spellingsOf(level).map((one) => [one, into[place]] as const)),
      );
      return byText.get(text) ?? (unknown && !isBlank(text) ? unknown(text) : into[places.blank]);
    },
    get coding() {
      return regrouped(places.coding, into, size);
    },
  };
}

/** A variable's valid values. @param from values below are none */
export function numbersOf({ name, places, written, passed }: Inspected, from = -Infinity): Numbers {
  const of = new Float64Array(places.size).fill(NaN);
  const levels = LevelArrays.from(places.levels);
  for (let place = 0; place < levels.length; place++)
    if (levels.isValid(place) && levels.values[place] >= from) of[place] = levels.values[place];
  let byText: Map<string, number> | null = null;
  return {
    variable: name,
    from,
    of: (text) => {
      byText ??= new Map(
        places.levels.flatMap((level, place) => spellingsOf(level).map((one) => [one, of[place]] as const)),
      );
      const known = byText.get(text);
      if (known !== undefined || !passed) return known ?? NaN;
      // Of a sample not all texts are known.
      const value = valueOf(text, written);
      return value !== null && value >= from ? value : NaN;
    },
    get lifted() {
      return lifted(places.coding, of);
    },
  };
}

/** What a variable weighs rows by: its valid values that are not below zero. */
export const weightOf = (inspected: Inspected): Numbers => numbersOf(inspected, 0);

/** The rows that hold a valid answer, as one category. */
export function validRows({ name, places, passed, written }: Inspected): Categories {
  const into = new Int32Array(places.size).fill(-1);
  const levels = LevelArrays.from(places.levels);
  for (let place = 0; place < levels.length; place++) if (levels.isValid(place)) into[place] = 0;
  const isText = written.storage === 'text';
  const isValid = (text: string): boolean => isText || valueOf(text, written) !== null;
  return categoriesOf(name, places, into, 1, passed ? (text) => (isValid(text) ? 0 : -1) : null);
}
