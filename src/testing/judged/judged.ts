import { columnOf } from '../../core/extract/column';
import { bareEntry, type CodebookEntry, type Extract } from '../../core/extract/extract';
import type { Kind, Role, Storage } from '../../core/extract/words';
import { chance, type Chance } from '../../demo/random';

/** What an expert would say of a variable that is made as such variables are: its name, sometimes a label, its cells. */
export interface Judged {
  name: string;
  kind: Kind | Kind[];
  role?: Role;
  storage?: Storage;
  /** Whether words alone tell what it is: its numbers might be anything. */
  judgedBy?: 'words';
  label?: string;
  entry?: Partial<CodebookEntry>;
  cell: (c: Chance, row: number) => string | number;
}

/** An extract of variables that are made as judged, the same for the same seed. */
export function extractOfJudged(judged: readonly Judged[], seed: number, rows: number): Extract {
  return {
    name: 'made',
    files: [],
    codebooks: [],
    notices: [],
    linkNotices: [],
    rows,
    variables: judged.map(({ name, label, entry, cell }, i) => {
      const c = chance(seed + i * 31);
      const texts = Array.from({ length: rows }, (_, row) => String(cell(c, row)));
      return {
        name,
        position: i + 1,
        column: columnOf(texts),
        entry: label || entry ? { ...bareEntry(name), label: label ?? null, ...entry } : null,
      };
    }),
  };
}

/** A variable in one line: its name, its kind, how its cells are made, and what else there is of it. */
export const v = (
  name: string,
  kind: Judged['kind'],
  cell: Judged['cell'],
  more: Omit<Judged, 'name' | 'kind' | 'cell'> = {},
): Judged => ({ name, kind, cell, ...more });
