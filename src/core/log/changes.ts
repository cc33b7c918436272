import type { KeptTable } from '../cross/kept-table';
import type { RowName } from '../extract/row-names';
import type { Recode } from '../recode/recode';
import type { Sieve } from '../sieve/condition';
import type { Entry } from './entries';

/** What a person wrote in place of a cell's text. */
export interface Correction {
  row: RowName;
  variable: string;
  /** The text that was received. */
  from: string;
  to: string;
}

/** A row that a person wrote. */
export interface AddedRow {
  id: string;
  /** By variable; what is not named is blank. */
  cells: Readonly<Record<string, string>>;
}

type RowEntry = Extract<
  Entry,
  {
    type:
      | 'set-aside'
      | 'count-again'
      | 'correct-cells'
      | 'add-rows'
      | 'make-recode'
      | 'drop-recode'
      | 'keep-table'
      | 'drop-table'
      | 'make-sieve'
      | 'change-sieve'
      | 'name-sieve'
      | 'drop-sieve'
      | 'use-sieve';
  }
>;

/** What decisions make of rows and their cells. */
export interface Changes {
  aside: RowName[];
  /** By row and variable: the later word counts. */
  corrections: Map<string, Correction>;
  added: AddedRow[];
  /** Trial recodes by their names, in the order in which they were made. */
  recodes: Map<string, Recode>;
  /** Tables that are kept, by their ids, in the order in which they were. */
  tables: Map<string, KeptTable>;
  sieves: Map<string, Sieve>;
  sieve: string | null;
}

const ROW_ENTRIES: ReadonlySet<Entry['type']> = new Set<RowEntry['type']>([
  'set-aside',
  'count-again',
  'correct-cells',
  'add-rows',
  'make-recode',
  'drop-recode',
  'keep-table',
  'drop-table',
  'make-sieve',
  'change-sieve',
  'name-sieve',
  'drop-sieve',
  'use-sieve',
]);
/** Whether a decision is one on rows, cells, recodes or sieves. */
export const isRowEntry = (entry: Entry): entry is RowEntry => ROW_ENTRIES.has(entry.type);

/** Lays one decision on rows. What it says of a sieve that is not there, because its making was taken back, says nothing. */
export function layOnRows(changes: Changes, entry: RowEntry): void {
  const { sieves } = changes;
  switch (entry.type) {
    case 'set-aside':
      for (const name of entry.rows) changes.aside.push(name);
      break;
    case 'count-again': {
      const back = new Set(entry.rows.map((name) => JSON.stringify(name)));
      changes.aside = changes.aside.filter((name) => !back.has(JSON.stringify(name)));
      break;
    }
    case 'correct-cells':
      for (const { row, variable, from, to } of entry.cells)
        changes.corrections.set(cellKey(row, variable), { row, variable, from, to });
      break;
    case 'add-rows':
      changes.added.push(...entry.rows);
      break;
    case 'make-recode':
      changes.recodes.set(entry.recode.name, entry.recode);
      break;
    case 'drop-recode':
      changes.recodes.delete(entry.name);
      break;
    case 'keep-table':
      changes.tables.set(entry.table, entry.asked);
      break;
    case 'drop-table':
      changes.tables.delete(entry.table);
      break;
    case 'make-sieve':
      sieves.set(entry.sieve, { id: entry.sieve, name: entry.name, parts: entry.parts });
      if (entry.use) changes.sieve = entry.sieve;
      break;
    case 'change-sieve': {
      const known = sieves.get(entry.sieve);
      if (!known) break;
      sieves.set(entry.sieve, { ...known, parts: entry.parts });
      if (entry.use) changes.sieve = entry.sieve;
      break;
    }
    case 'name-sieve': {
      const known = sieves.get(entry.sieve);
      if (known) sieves.set(entry.sieve, { ...known, name: entry.name });
      break;
    }
    case 'drop-sieve':
      sieves.delete(entry.sieve);
      break;
    case 'use-sieve':
      changes.sieve = entry.sieve;
      break;
  }
}

const cellKey = ({ file, row, added, cells }: RowName, variable: string): string =>
  JSON.stringify([file, row, added ?? null, cells, variable]);
