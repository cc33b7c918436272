import Papa from 'papaparse';
import { nearNames } from '../extract/near-names';
import type { Inspector } from './inspect';
import { putUnder } from '../extract/put-under';

/** A line of a sheet of corrections: what it asks, and whether it can be done. */
export interface SheetLine {
  /** One-based, in what was pasted. */
  line: number;
  identifier: string;
  variable: string;
  to: string;
  /** The cell that is meant; `null` where none is, and then `says` tells why. */
  cell: { row: number; variable: string; from: string } | null;
  says: string | null;
}

/**
 * Reads a pasted sheet of three columns, identifier, variable and value, parted by tabs, commas or semicolons. Rows are known by
 * what identifies them, or by their one-based number where nothing does. Every line is checked; nothing is changed.
 */
export function sheetLines(inspector: Inspector, text: string): SheetLine[] {
  const { extract, received, calledBy: unitsBy, corrected } = inspector;
  const { data } = Papa.parse<string[]>(text, {
    skipEmptyLines: false,
    delimitersToGuess: ['\t', ';', ',', '|'],
  });
  const column = extract.variables.find(({ name }) => name === unitsBy)?.column ?? null;
  const rowsOf = column && rowsByText(column);
  const names = extract.variables.map(({ name }) => name);
  return data.flatMap((cells, i): SheetLine[] => {
    if (cells.every((cell) => cell.trim() === '')) return [];
    const [identifier = '', name = '', ...values] = cells.map((cell) => cell.trim());
    const to = values[0] ?? '';
    const line = { line: i + 1, identifier, variable: name, to };
    const wrong = (says: string): SheetLine[] => [{ ...line, cell: null, says }];
    const variable = inspector.lookup(name)?.name;
    if (variable === undefined) {
      // A line of titles says nothing of any cell.
      if (i === 0 && /^(variable|name|column)$/i.test(name)) return [];
      const near = nearNames(name, names);
      return wrong(
        cells.length < 3
          ? 'three cells are needed: what identifies the row, the variable, the value'
          : `there is no variable ${name}${near.length ? `; near are ${near.join(', ')}` : ''}`,
      );
    }
    if (values.length !== 1) return wrong(`${cells.length} cells, three are needed`);
    const rows = rowsOf ? (rowsOf.get(identifier) ?? []) : rowByNumber(identifier, extract.rows);
    if (rows.length === 0)
      return wrong(
        unitsBy === null ? `there is no row ${identifier}` : `no row has ${unitsBy} ${identifier}`,
      );
    if (rows.length > 1)
      return wrong(
        `${rows.length} rows have ${unitsBy ?? 'it'} ${identifier}: correct the one that is meant in the table`,
      );
    if (inspector.wholly(variable)?.trial !== undefined)
      return wrong(`${variable} is a trial recode; correct what it is made of`);
    const [row] = rows;
    const place = extract.variables.findIndex((one) => one.name === variable);
    const now = extract.variables[place].column.text(row);
    if (now === to) return wrong('the cell holds that already');
    const from =
      corrected.get(variable)?.get(row) ??
      (row < received.rows ? received.variables[place].column.text(row) : '');
    return [{ ...line, variable, cell: { row, variable, from }, says: null }];
  });
}

function rowsByText(column: { rows: number; text: (row: number) => string }): Map<string, number[]> {
  const rows = new Map<string, number[]>();
  for (let row = 0; row < column.rows; row++) {
    putUnder(rows, column.text(row).trim(), row);
  }
  return rows;
}

const rowByNumber = (text: string, rows: number): number[] =>
  /^\d+$/.test(text) && Number(text) >= 1 && Number(text) <= rows ? [Number(text) - 1] : [];
