import { lineOfRow } from '../extract/extract';
import { fileStarts } from '../extract/files';
import type { Level, Standing } from '../infer/levels';
import type { Inspected } from './inspected';
import type { Inspector } from './inspect';

/** A cell as it stands, with the label of its code. */
export interface Cell {
  name: string;
  text: string;
  label: string | null;
  standing: Standing | null;
}

/** One row with all its cells. */
export interface RecordCard {
  row: number;
  rows: number;
  file: string;
  rowInFile: number;
  line: number | null;
  cells: Cell[];
}

const MOST_LABELLED = 2000;

/** @param row zero-based, of the whole extract */
export async function recordOf({ extract, variables, records }: Inspector, row: number): Promise<RecordCard> {
  const starts = fileStarts(extract.files);
  const file = Math.max(
    0,
    extract.files.findIndex((_, i) => row < starts[i + 1]),
  );
  const source = extract.files[file];
  const [texts] = await records.cells(
    [row],
    variables.map(({ name }) => name),
  );
  return {
    row,
    rows: extract.rows,
    file: source?.name ?? extract.name,
    rowInFile: row - (starts[file] ?? 0),
    line: source ? lineOfRow(source, row - starts[file]) : null,
    cells: variables.map((variable, i) => cellOf(variable, texts[i])),
  };
}

/** A cell's text with what its variable knows of it. */
export function cellOf({ name, levels: { levels } }: Inspected, text: string): Cell {
  const level = levels.length <= MOST_LABELLED ? levels.find((one) => holds(one, text)) : undefined;
  return { name, text, label: level?.label ?? null, standing: level?.standing ?? null };
}

const holds = ({ code, spellings }: Level, text: string): boolean =>
  code === text || spellings.includes(text);
