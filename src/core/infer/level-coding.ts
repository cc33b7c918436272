import type { Coding } from '../extract/coding';
import type { Column } from '../extract/column';
import { spellingsOf, type Level } from './levels';

/** Which of some levels each row holds, under any of their spellings; −1 for none of them. */
export function levelCoding(column: Column, levels: readonly Level[]): Coding {
  const place = new Map(levels.flatMap((level, i) => spellingsOf(level).map((text) => [text, i] as const)));
  return column.coding(levels.length, (text) => place.get(text) ?? -1);
}
