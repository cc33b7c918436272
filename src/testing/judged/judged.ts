import { columnOf } from '../../core/extract/column';
import { bareEntry, type CodebookEntry, type Extract, type FileSource } from '../../core/extract/extract';
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

/**
 * An extract of variables that are made as judged, the same for the same seed.
 * @param rows in each file @param waves files of the same units
 */
export function extractOfJudged(judged: readonly Judged[], seed: number, rows: number, waves = 1): Extract {
  const all = rows * waves;
  return {
    name: 'made',
    files: waves === 1 ? [] : Array.from({ length: waves }, (_, i) => waveFile(i, rows, judged)),
    codebooks: [],
    notices: [],
    linkNotices: [],
    rows: all,
    variables: judged.map(({ name, label, entry, cell }, i) => {
      const c = chance(seed + i * 31);
      const texts = Array.from({ length: all }, (_, row) => String(cell(c, row % rows)));
      return {
        name,
        position: i + 1,
        column: columnOf(texts),
        entry: label || entry ? { ...bareEntry(name), label: label ?? null, ...entry } : null,
      };
    }),
  };
}

const waveFile = (at: number, rows: number, judged: readonly Judged[]): FileSource => ({
  name: `made_${2011 + at}.csv`,
  bytes: 0,
  rows,
  columns: judged.length,
  form: 'delimited',
  encoding: 'utf-8',
  delimiter: ',',
  header: true,
  names: judged.map(({ name }) => name),
  wave: String(2011 + at),
  notices: [],
});

/** A variable in one line: its name, its kind, how its cells are made, and what else there is of it. */
export const v = (
  name: string,
  kind: Judged['kind'],
  cell: Judged['cell'],
  more: Omit<Judged, 'name' | 'kind' | 'cell'> = {},
): Judged => ({ name, kind, cell, ...more });
