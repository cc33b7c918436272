import { isBlank } from '../read/looks';
import type { Declarations } from './declared';
import { LevelArrays, NO_OTHERS, type Level, type LevelList } from './level-list';
import { numberOf, spellingsOf, type Levels } from './levels';
import { valueOf } from './read-levels';
import type { Written } from './storage';
import { putUnder } from '../extract/put-under';

/**
 * Levels of which some count for another: their rows go over, and their texts become spellings of it. Codes meet levels by
 * text; one that no row holds becomes a level of its own, read as a cell would be.
 */
export function mergeLevels(
  levels: Levels,
  merges: ReadonlyMap<string, string>,
  written: Written,
  declarations: Declarations,
): Levels {
  if (merges.size === 0) return levels;
  const byText = new Map(
    levels.levels.flatMap((level) => spellingsOf(level).map((text) => [text, level] as const)),
  );
  const byValue = new Map(
    levels.levels.flatMap((level) => (level.value === null ? [] : [[level.value, level] as const])),
  );
  const fresh = new Map<string, Level>();
  const levelFor = (code: string): Level => {
    const value = valueOf(code, written);
    const known = byText.get(code) ?? (value === null ? undefined : byValue.get(value)) ?? fresh.get(code);
    if (known) return known;
    const made: Level = {
      code,
      spellings: NO_OTHERS,
      value,
      label: null,
      count: 0,
      standing: value !== null || written.storage === 'text' ? 'valid' : 'unreadable',
      reason: null,
      declaredBy: null,
    };
    declarations.mark(made);
    fresh.set(code, made);
    return made;
  };
  const goesTo = new Map(
    [...merges].flatMap(([from, into]) => {
      const level = byText.get(from);
      return level ? [[level, levelFor(into)] as const] : [];
    }),
  );
  // A target may itself count for another. What goes round in a circle stays where it is, and what leads there stays too.
  const target = (level: Level): Level => {
    const passed = new Set<Level>([level]);
    let at = level;
    for (let next = goesTo.get(at); next && next !== at; next = goesTo.get(at)) {
      if (passed.has(next)) return level;
      passed.add(next);
      at = next;
    }
    return at;
  };
  const added = new Map<Level, Level[]>();
  for (const level of goesTo.keys()) if (target(level) !== level) putUnder(added, target(level), level);
  const all = [
    ...levels.levels.filter((level) => target(level) === level),
    ...[...fresh.values()].filter((level) => added.has(level)),
  ];
  const merged = all.map((level): Level => {
    const parts = added.get(level);
    return parts
      ? {
          ...level,
          count: parts.reduce((sum, { count }) => sum + count, level.count),
          spellings: [...spellingsOf(level), ...parts.flatMap(spellingsOf)],
        }
      : level;
  });
  return { ...levels, levels: LevelArrays.from(fresh.size === 0 ? merged : inValueOrder(merged)) };
}

/** Values ascending, then texts in code unit order. */
function inValueOrder(levels: LevelList): Level[] {
  const byCode = (a: Level, b: Level): number => (a.code < b.code ? -1 : 1);
  return [
    ...levels.filter(({ value }) => value !== null).sort((a, b) => numberOf(a) - numberOf(b) || byCode(a, b)),
    ...levels.filter(({ value }) => value === null).sort(byCode),
  ];
}

/** The levels without some rows. @param cells the text of each row that is left out, with the number of such rows */
export function withoutCells(
  { rows, blank, levels, ...rest }: Levels,
  cells: ReadonlyMap<string, number>,
): Levels {
  let [gone, blanks] = [0, 0];
  for (const [text, count] of cells) {
    gone += count;
    if (isBlank(text)) blanks += count;
  }
  return {
    ...rest,
    rows: rows - gone,
    blank: blank - blanks,
    levels: levels.recounted(
      levels.counts.map((count, i) => {
        const code = levels.code(i);
        let left = count - (cells.get(code) ?? 0);
        for (const text of levels.spellings(i)) if (text !== code) left -= cells.get(text) ?? 0;
        return Math.max(0, left);
      }),
    ),
  };
}
