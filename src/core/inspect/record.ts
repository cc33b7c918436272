import type { Level, Standing } from '../infer/level-list';
import type { Inspected } from './inspected';
import type { Inspector } from './inspect';
import { placesTold } from './told-rows';

/** A cell as it stands, with the label of its code. */
export interface Cell {
  name: string;
  text: string;
  label: string | null;
  standing: Standing | null;
  /** What was received, where a person wrote something else in its place. */
  received?: string;
}

/** A row: by its zero-based place among those that are held, or in a listing of all rows, by the number of that. */
export type RecordAt = number | { whole: number; place: number };

/** One row with all its cells. */
export interface RecordCard {
  /** Zero-based, of the whole extract; `null` of a row that is not held. */
  row: number | null;
  /** Zero-based place among those that stand before and after it, and how many those are. */
  at: number;
  of: number;
  /** One-based place among all rows that were read, and how many those are. */
  place: number;
  all: number;
  file: string;
  rowInFile: number;
  line: number | null;
  cells: Cell[];
}

const MOST_LABELLED = 2000;

/** @param row zero-based, of the whole extract */
export async function recordOf(inspector: Inspector, row: number): Promise<RecordCard> {
  const { extract, records, corrected } = inspector;
  const variables = extract.variables.flatMap(({ name }) => inspector.wholly(name) ?? []);
  const [place] = placesTold(inspector, [row]);
  const [texts] = await records.cells(
    [row],
    variables.map(({ name }) => name),
  );
  return {
    row,
    at: row,
    of: extract.rows,
    place: place.place,
    all: Math.max(extract.pass?.rows ?? 0, extract.rows),
    file: place.file,
    rowInFile: place.rowInFile - 1,
    line: place.line,
    cells: variables.map((variable, i) => {
      const received = corrected.get(variable.name)?.get(row);
      return { ...cellOf(variable, texts[i]), ...(received === undefined ? {} : { received }) };
    }),
  };
}

/** A cell's text with what its variable knows of it. */
export function cellOf({ name, levels: { levels } }: Inspected, text: string): Cell {
  const level = levels.length <= MOST_LABELLED ? levels.find((one) => holds(one, text)) : undefined;
  return { name, text, label: level?.label ?? null, standing: level?.standing ?? null };
}

const holds = ({ code, spellings }: Level, text: string): boolean =>
  code === text || spellings.includes(text);
