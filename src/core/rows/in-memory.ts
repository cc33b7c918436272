import { codingOfStretches, regrouped, type Coding, type Lifted } from '../extract/coding';
import type { Column } from '../extract/column';
import type { Extract } from '../extract/extract';
import { fileStarts } from '../extract/files';
import { tallyColumn, tallyWithin } from '../tally/tally';
import { has } from '../extract/bits';
import { findRows } from '../extract/rows';
import { crossed, measured } from './counting';
import type { Categories, Numbers, Records } from './records';

/** The rows of an extract whose columns are in memory. @throws Error for a variable that is not there */
export function recordsOf(extract: Extract): Records {
  const columns = new Map(extract.variables.map(({ name, column }) => [name, column]));
  const columnOf = (name: string): Column => {
    const column = columns.get(name);
    if (!column) throw new Error(`there is no variable ${name}`);
    return column;
  };
  const codingOf = ({ variable, size, of, coding }: Categories): Coding => {
    if (coding) return coding;
    if (variable !== null) return columnOf(variable).coding(size, of);
    const places = extract.files.map((_, i) => (i < size ? i : -1));
    return regrouped(codingOfStretches(fileStarts(extract.files), extract.rows), places, size);
  };
  const numbersOf = ({ variable, of, lifted }: Numbers): Lifted => lifted ?? columnOf(variable).numbers(of);
  const { rows } = extract;
  return {
    rows,
    tally: async (variable, within) =>
      within === null ? tallyColumn(columnOf(variable)) : tallyWithin(columnOf(variable), within),
    cross: async (by, within, weight = null) =>
      crossed(rows, by.map(codingOf), {
        within,
        weight: weight && numbersOf(weight),
      }),
    measured: async (by, measure, within, weight = null) =>
      measured(rows, by.map(codingOf), numbersOf(measure), { within, weight: weight && numbersOf(weight) }),
    firstRows: async (variable, lists, most, within) => findRows(columnOf(variable), lists, most, within),
    cells: async (wanted, variables) => {
      const of = variables.map(columnOf);
      return wanted.map((row) => of.map((column) => column.text(row)));
    },
    page: async (from, take, within) => {
      if (within === null)
        return Array.from({ length: Math.max(0, Math.min(take, rows - from)) }, (_, i) => from + i);
      const page: number[] = [];
      let passed = 0;
      for (let row = 0; row < rows && page.length < take; row++)
        if (has(within, row) && passed++ >= from) page.push(row);
      return page;
    },
  };
}
