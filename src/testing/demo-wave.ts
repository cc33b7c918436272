import Papa from 'papaparse';
import { demoFiles } from '../demo/files';

/** The first wave of the demo as any parser of delimited text reads it: a column of texts for each name, and which hold numbers. */
export function demoWave(): { numbers: string[]; columns: Record<string, string[]> } {
  const file = [...demoFiles()].find(({ name }) => name === 'upkeep_2019.csv');
  const [names, ...rows] = Papa.parse<string[]>(file?.text.trim() ?? '').data;
  const columns = Object.fromEntries(names.map((name, i) => [name, rows.map((row) => row[i])]));
  // Neither days nor codes with zeros before them are numbers.
  const numbers = names.filter((name) => columns[name].every((text) => !/^0\d|\d[-/]\d/.test(text)));
  return { numbers, columns };
}

/** Sums of columns that hold numbers, to twelve digits. */
export function sumsOf(names: readonly string[], of: (name: string) => unknown[]): Record<string, string> {
  const sums: Record<string, string> = {};
  for (const name of names) {
    const numbers = of(name).map((value) =>
      typeof value === 'number' && Number.isFinite(value) ? value : 0,
    );
    sums[name] = numbers.reduce((sum, value) => sum + value, 0).toPrecision(12);
  }
  return sums;
}
