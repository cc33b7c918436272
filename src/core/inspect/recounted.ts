import type { Bits } from '../extract/bits';
import type { Places } from '../infer/level-coding';
import type { Levels } from '../infer/levels';
import { crossed } from '../rows/counting';

/**
 * The levels of a variable over some rows, counted from codes: no text is read, whatever the number of rows that are left out.
 * A level that none of them holds is none of theirs; all else about it stays as all rows have it.
 * @param rows number of all rows @param within those that count; all where it is `null`
 */
export function recounted(
  { levels, ...rest }: Levels,
  places: Places,
  within: Bits | null,
  rows: number,
): Levels {
  const { sums } = crossed(rows, [places.coding], { within });
  const notAsked = sums[places.notAsked];
  return {
    ...rest,
    rows: sums.reduce((all, count) => all + count, 0),
    blank: sums[places.blank],
    ...(notAsked > 0 ? { notAskedBlank: notAsked } : {}),
    levels: levels.recounted(sums),
  };
}
