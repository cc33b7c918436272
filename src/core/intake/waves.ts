import { categoryAt } from '../extract/coding';
import { codingOfTexts, ColumnBuilder, type Column } from '../extract/column';
import type { ColumnPass, Extract, FileSource, Notice } from '../extract/extract';
import { fileStarts } from '../extract/files';
import { isBlank } from '../read/looks';
import { filesWhere } from '../rows/by-file';

/** Which variable tells the wave: one that is found, one made of what the files are called, none, or the one named. */
export type WaveFrom = 'found' | 'file-name' | 'none' | { variable: string };

const WAVE_NAME = /(^|_)(wave|welle|vague|ola|round|sweep|year|jahr|annee|yr|syear|period)(_|\d|$)/i;

/** What a file's name says of its wave: a year, else what its name has that the others lack; else its number. */
export function waveOf(name: string, all: readonly string[]): string {
  const year = /(?:^|\D)((?:19|20)\d{2})(?:\D|$)/.exec(name)?.[1];
  if (year && all.every((other) => other === name || !new RegExp(`(?:^|\\D)${year}(?:\\D|$)`).test(other)))
    return year;
  const bare = (file: string): string => file.replace(/\.\w+(\.gz)?$/, '');
  const others = all.map(bare);
  const own = bare(name);
  let from = 0;
  while (from < own.length && others.every((other) => other[from] === own[from])) from++;
  let to = own.length;
  while (
    to > from &&
    others.every(
      (other) =>
        other.length - (own.length - to) > from &&
        other[other.length - (own.length - to) - 1] === own[to - 1],
    )
  )
    to--;
  // Words are not cut: north and south share their ends, but are not called nor and sou.
  while (from > 0 && /[\p{L}\p{N}]/u.test(own[from - 1])) from--;
  while (to < own.length && /[\p{L}\p{N}]/u.test(own[to])) to++;
  return own.slice(from, to).replace(/^[\s_.-]+|[\s_.-]+$/g, '') || String(all.indexOf(name) + 1);
}

/** Zero-based places of the files in which a column holds anything. */
export const filesHolding = (column: Column, files: readonly FileSource[]): number[] =>
  filesWhere(column, files, (text) => !isBlank(text));

/**
 * The extract with its waves told apart, where there are several files: by the variable that holds one value in each
 * file and another in every other, or by one that is made from what the files are called and stands last.
 */
export function nameWaves(extract: Extract, from: WaveFrom): Extract {
  const { files } = extract;
  if (files.length < 2 || from === 'none') return extract;
  const all = files.map(({ name }) => name);
  const called = files.map((file) => file.wave ?? waveOf(file.name, all));
  const told =
    typeof from === 'object'
      ? extract.variables.filter(({ name }) => name === from.variable)
      : from === 'file-name'
        ? []
        : extract.variables.filter(({ name }) => WAVE_NAME.test(name));
  for (const { name, column } of told) {
    const values = valuePerFile(column, files);
    if (!values) continue;
    return noticed(
      {
        ...extract,
        files: files.map((file, i) => ({ ...file, wave: file.wave ?? values[i] })),
        wave: { variable: name, by: 'found' },
      },
      values,
    );
  }
  const noticedExtract = noticed(
    { ...extract, files: files.map((file, i) => ({ ...file, wave: called[i] })) },
    called,
  );
  if (typeof from === 'object') {
    const says = told.length
      ? `${from.variable} does not hold one value in each file and another in every other, so it does not tell the wave`
      : `there is no variable ${from.variable} to tell the wave`;
    return { ...noticedExtract, notices: [...noticedExtract.notices, { says }] };
  }
  if (from === 'found') {
    // Parts of one delivery need none; waves do.
    const years = called.every((name) => /^(19|20)\d{2}$/.test(name));
    return years
      ? {
          ...noticedExtract,
          notices: [
            ...noticedExtract.notices,
            {
              says: `no variable tells the waves ${called.join(', ')} apart; one can be made of what the files are called`,
            },
          ],
        }
      : noticedExtract;
  }
  const builder = new ColumnBuilder();
  files.forEach((file, i) =>
    builder.pushFrom(
      Array.from({ length: file.rows }, () => [called[i]]),
      0,
    ),
  );
  const taken = new Set(extract.variables.map(({ name }) => name));
  let name = 'wave';
  for (let n = 2; taken.has(name); n++) name = `wave_${n}`;
  return {
    ...noticedExtract,
    variables: [
      ...extract.variables,
      {
        name,
        position: extract.variables.length + 1,
        column: builder.finish(),
        entry: null,
        ...(extract.pass ? { pass: passOfFiles(called, files) } : {}),
      },
    ],
    notices: [
      ...noticedExtract.notices,
      { says: `${name} was made of what the files are called: ${called.join(', ')}` },
    ],
    wave: { variable: name, by: 'made' },
  };
}

/** Of a column that holds the same in all rows of a file, what all rows hold. */
const passOfFiles = (texts: readonly string[], files: readonly FileSource[]): ColumnPass => ({
  texts,
  counts: Float64Array.from(files, ({ read = 0 }) => read),
  others: null,
});

/** The one value of a column in each file; `null` where a file holds several, or two files the same. */
function valuePerFile(column: Column, files: readonly FileSource[]): string[] | null {
  if (column.distinct === null) return null;
  const starts = fileStarts(files);
  const coding = codingOfTexts(column);
  const values: string[] = [];
  for (let f = 0; f < files.length; f++) {
    if (files[f].rows === 0) return null;
    const [from, to] = [starts[f], starts[f + 1]];
    const own = categoryAt(coding, from);
    let others = 0;
    for (let row = from + 1; row < to; row++) if (categoryAt(coding, row) !== own) others++;
    // A stray row, such as a total or a repeated head, does not take the wave from the others.
    if (others > Math.min(MOST_STRAYS, Math.max(1, (to - from) * STRAYS))) return null;
    values.push(column.text(from).trim());
  }
  return new Set(values).size === values.length && values.every((value) => value !== '') ? values : null;
}

/** Rows of a file that may hold another value than all others: such a share of them, and no more than so many. */
const STRAYS = 0.002;
const MOST_STRAYS = 3;

/** With a notice of years that are missing in a run of them. */
function noticed(extract: Extract, waves: readonly string[]): Extract {
  const gaps = missingYears(waves);
  const notices: Notice[] = gaps.length
    ? [{ says: `no file for ${gaps.join(', ')}, though there are files before and after` }]
    : [];
  return { ...extract, notices: [...extract.notices, ...notices] };
}

/** Years that are not there between years that are, where every wave is a year and most of the run is there. */
export function missingYears(waves: readonly string[]): string[] {
  if (waves.length < 2 || !waves.every((wave) => /^(19|20)\d{2}$/.test(wave))) return [];
  const years = [...new Set(waves.map(Number))].sort((a, b) => a - b);
  const steps = years.slice(1).map((year, i) => year - years[i]);
  // A panel that asks every second year has no gaps.
  const step = steps.length > 1 ? Math.min(...steps) : 1;
  const gaps: string[] = [];
  for (let year = years[0]; year < years[years.length - 1]; year += step)
    if (!years.includes(year)) gaps.push(String(year));
  return gaps.length < years.length * 2 ? gaps : [];
}
