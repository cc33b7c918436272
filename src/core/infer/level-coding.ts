import type { Coding } from '../extract/coding';
import type { Column } from '../extract/column';
import { textAt } from '../extract/text-list';
import type { Categories } from '../rows/records';
import { LevelArrays, levelAt, type LevelList } from './level-list';
import { spellingsOf } from './levels';

/** Which of some levels a text is, under any of their spellings, as a holder of rows is asked for it. */
export function levelCategories(variable: string, levels: LevelList): Categories {
  const place = placeOfTexts(levels);
  return { variable, size: levels.length, of: (text) => place.get(text) ?? -1 };
}

/** The place of a raw text among some levels, under any of their spellings. */
export const placeIn = (levels: LevelList, text: string): number | undefined =>
  placeOfTexts(levels).get(text);

/** The place of each raw text among some levels, under any of their spellings. */
export function placeOfTexts(levels: LevelList): Map<string, number> {
  let place = places.get(levels);
  if (place) return place;
  place = new Map<string, number>();
  for (let i = 0; i < levels.length; i++)
    for (const text of spellingsOf(levelAt(levels, i))) place.set(text, i);
  places.set(levels, place);
  return place;
}
const places = new WeakMap<LevelList, Map<string, number>>();

/** Which of some levels each row holds, under any of their spellings; −1 for none of them. */
export function levelCoding(column: Column, levels: LevelList): Coding {
  const { size, of } = levelCategories('', levels);
  return column.coding(size, of);
}

/**
 * Which level each row of a variable holds, or that it holds none: what counting, sieving, sorting and crossing rest on. The
 * levels are those of all rows that were received, so that a place means the same whichever rows count.
 */
export interface Places {
  readonly levels: LevelList;
  /** Behind the levels: blank cells, and blank cells of rows that were not asked by a universe that a person accepted. */
  readonly blank: number;
  readonly notAsked: number;
  readonly size: number;
  /** No row is in none of them. Worked out when it is first asked for. */
  readonly coding: Coding;
}

/** @param notAsked which rows were not asked, where a person said so: blank cells there are blank for that reason */
export function placesOf(
  column: Column,
  levels: LevelList,
  notAsked: ((row: number) => boolean) | null = null,
): Places {
  const [blank, notAskedBlank, size] = [levels.length, levels.length + 1, levels.length + 2];
  let coding: Coding | null = null;
  return {
    levels,
    blank,
    notAsked: notAskedBlank,
    size,
    get coding() {
      return (coding ??= notAsked ? gated() : plain());
    },
  };

  function plain(): Coding {
    const { texts, codes } = column.listed;
    const to = new Int32Array(texts.length).fill(-1);
    // Most levels know where their only text stands; the others are looked for.
    const others = new Map<string, number>();
    const listed = LevelArrays.from(levels);
    const same = listed.texts === texts;
    for (let place = 0; place < listed.length; place++) {
      const [at, spellings] = [listed.tallied(place), listed.spellings(place)];
      const stands = at >= 0 && spellings.length === 0;
      if (stands && (same || texts.at(at) === listed.code(place))) to[at] = place;
      else for (const text of spellings.length ? spellings : [listed.code(place)]) others.set(text, place);
    }
    for (let i = 0; i < to.length; i++)
      if (to[i] < 0) to[i] = (others.size > 0 ? others.get(textAt(texts, i)) : undefined) ?? blank;
    return { size, codes, to };
  }
  function gated(): Coding {
    const { codes, to } = plain();
    const all = new Uint32Array(column.rows);
    for (let row = 0; row < all.length; row++) {
      const at = to[codes[row]];
      all[row] = at === blank && notAsked?.(row) ? notAskedBlank : at;
    }
    return { size, codes: all, to: Int32Array.from({ length: size }, (_, i) => i) };
  }
}
