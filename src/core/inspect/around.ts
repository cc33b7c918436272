import type { Column } from '../extract/column';
import type { Extract } from '../extract/extract';
import type { Universe } from '../flags/between/universe';
import type { Flag } from '../flags/rule';
import { isBlank } from '../read/looks';
import type { Around } from '../sets/traits';

/** So many of the first rows tell which rows are blank. */
const MOST_ROWS = 20_000;
/** A share of blank rows beyond these ends tells nothing. */
const LEAST_BLANK = 0.02;

/** What tells which variables belong together besides themselves: who decides whom was asked, and which rows are blank. */
export function aroundOf(
  extract: Extract,
  flags: readonly Flag[],
  accepted: ReadonlyMap<string, Universe>,
): Around {
  const columns = new Map(extract.variables.map(({ name, column }) => [name, column]));
  const gates = new Map<string, string>();
  for (const { universe, variables } of flags) if (universe) gates.set(variables[0], universe.by);
  for (const [name, { by }] of accepted) gates.set(name, by);
  return {
    gates,
    blanks: (name) => {
      const column = columns.get(name);
      return column ? blanksOf(column) : null;
    },
  };
}

/** A text that is the same for columns with the same blank rows, as far as they are looked at. */
function blanksOf(column: Column): string | null {
  // Of very many texts only those of the rows looked at are read.
  const isBlankAt =
    column.form === 'packed'
      ? (row: number): boolean => isBlank(column.text(row))
      : column.lift(isBlank, false);
  const rows = Math.min(column.rows, MOST_ROWS);
  let [blank, hash] = [0, 0x811c9dc5];
  for (let row = 0; row < rows; row++) {
    if (!isBlankAt(row)) continue;
    blank++;
    hash = Math.imul(hash ^ row, 0x01000193);
  }
  return blank < rows * LEAST_BLANK || blank > rows * (1 - LEAST_BLANK) ? null : `${blank} ${hash >>> 0}`;
}
