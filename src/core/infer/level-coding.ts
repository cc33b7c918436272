import type { Coding } from '../extract/coding';
import type { Column } from '../extract/column';
import type { Categories } from '../rows/records';
import { spellingsOf, type Level } from './levels';

/** Which of some levels a text is, under any of their spellings, as a holder of rows is asked for it. */
export function levelCategories(variable: string, levels: readonly Level[]): Categories {
  const place = new Map(levels.flatMap((level, i) => spellingsOf(level).map((text) => [text, i] as const)));
  return { variable, size: levels.length, of: (text) => place.get(text) ?? -1 };
}

/** Which of some levels each row holds, under any of their spellings; −1 for none of them. */
export function levelCoding(column: Column, levels: readonly Level[]): Coding {
  const { size, of } = levelCategories('', levels);
  return column.coding(size, of);
}
