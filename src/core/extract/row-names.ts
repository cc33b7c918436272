import { fileStarts } from './files';
import type { Extract, FileSource, Variable } from './extract';
import { putUnder } from './put-under';

/**
 * How a decision names one row, so that it stays the same observation whatever else the extract holds: by its file, its
 * place there, and what its cells hold.
 */
export interface RowName {
  /** The file it stands in; `null` where only its place in the whole extract is known. */
  file: string | null;
  /** Zero-based place in that file, or in the whole extract. */
  row: number;
  /** Fingerprint of its cells, 16 hexadecimal digits; `null` where it was never taken. */
  cells: string | null;
  /** The columns that the fingerprint is of, where not all of the file's were read. */
  of: string[] | null;
  /** What the extract's identifier holds in this row, where there is one. */
  identifier: { variable: string; text: string } | null;
  /** Of a row that a person added: its id. It stands in no file. */
  added?: string | undefined;
}

/** A row of which nothing but its place in the whole extract is known. @param row zero-based */
export const atPlace = (row: number): RowName => ({
  file: null,
  row,
  cells: null,
  of: null,
  identifier: null,
});

/** What became of a named row in an extract. */
export interface Located {
  name: RowName;
  /** Zero-based row of the whole extract; `null` where none is surely meant. */
  row: number | null;
  /** Why it is not simply the row at its place; `null` where it is. */
  says: string | null;
}

/** "row 8 of upkeep_2019.csv, hhid 0012": for a person, counted from one. */
export function rowText({ file, row, identifier, added }: RowName): string {
  if (added !== undefined)
    return `an added row${identifier ? `, ${identifier.variable} ${identifier.text}` : ''}`;
  return `row ${row + 1}${file === null ? '' : ` of ${file}`}${identifier ? `, ${identifier.variable} ${identifier.text}` : ''}`;
}

/** @param rows zero-based, of the whole extract @param identifier the variable that tells units apart, if one does */
export function nameRows(extract: Extract, rows: readonly number[], identifier: string | null): RowName[] {
  const { files } = extract;
  if (files.length === 0) return rows.map(atPlace);
  const starts = fileStarts(files);
  const told = extract.variables.find(({ name }) => name === identifier);
  const of = extract.part?.names ?? null;
  // Fingerprints of a file's rows are taken together.
  const prints = new Map<number, string>();
  const byFile = new Map<number, number[]>();
  for (const row of rows) {
    const file = fileAt(starts, row);
    putUnder(byFile, file, row);
  }
  for (const [file, own] of byFile)
    for (const [i, print] of fingerprints(columnsOf(extract, files[file], of), own).entries())
      prints.set(own[i], print);
  return rows.map((row) => {
    const file = fileAt(starts, row);
    const text = told?.column.text(row).trim() ?? '';
    return {
      file: files[file].name,
      row: row - starts[file],
      cells: prints.get(row) ?? null,
      of,
      identifier: told && text !== '' ? { variable: told.name, text } : null,
    };
  });
}

/**
 * Finds the rows that are meant, in whatever extract: the row at its place where its cells are the same; else the row of
 * that file with the same cells, or the one with the same identifier. In a file of another name only a row with the same
 * cells and the same identifier is meant. What is not surely found is left alone, and told.
 */
export function locateRows(extract: Extract, names: readonly RowName[]): Located[] {
  const starts = fileStarts(extract.files);
  const found = new Map<RowName, Located>();
  const taken = new Set<number>();
  const take = (name: RowName, row: number, says: string | null): void => {
    taken.add(row);
    found.set(name, { name, row, says });
  };
  const open: RowName[] = [];
  for (const name of names) {
    const row = rowAtPlace(extract, starts, name);
    if (row === null) open.push(name);
    else take(name, row, null);
  }
  if (open.length) {
    const search = new Search(extract, starts);
    for (const name of open) {
      const [row, says] = search.find(name, taken);
      if (row === null) found.set(name, { name, row, says });
      else take(name, row, says);
    }
  }
  return names.map((name) => found.get(name) ?? { name, row: null, says: null });
}

/** The row at the place that a name tells, if its cells are those that the name tells. */
function rowAtPlace(extract: Extract, starts: readonly number[], name: RowName): number | null {
  if (name.file === null) return name.row < extract.rows ? name.row : null;
  for (const [file, source] of extract.files.entries()) {
    if (source.name !== name.file || name.row >= source.rows) continue;
    const columns = checkable(extract, source, name);
    const row = starts[file] + name.row;
    if (columns && fingerprints(columns, [row])[0] === name.cells) return row;
  }
  return null;
}

/** Looks for rows that are not at their place. All rows of a file are looked at once, whatever the number of names. */
class Search {
  private readonly printed = new Map<string, Map<string, number[]>>();

  constructor(
    private readonly extract: Extract,
    private readonly starts: readonly number[],
  ) {}

  find(name: RowName, taken: ReadonlySet<number>): [row: number | null, says: string | null] {
    const { extract } = this;
    if (name.file === null) return [null, `there is no row ${name.row + 1}: the extract has ${extract.rows}`];
    const own = extract.files.flatMap((file, i) => (file.name === name.file ? [i] : []));
    if (own.length === 0) return this.elsewhere(name, taken);
    for (const file of own) {
      const same = this.alike(name, file)?.find((row) => !taken.has(row));
      if (same !== undefined) {
        const place = same - this.starts[file] + 1;
        return [same, place === name.row + 1 ? null : `it stands in row ${place} of ${name.file} now`];
      }
    }
    const [file] = own;
    const row = this.byIdentifier(name, file);
    const narrower = checkable(extract, extract.files[file], name) === null;
    if (row === null)
      return [
        null,
        narrower
          ? `too few variables of ${name.file} were read to know it again`
          : `no row of ${name.file} holds what it held`,
      ];
    return [
      row,
      narrower
        ? `known by ${name.identifier?.variable} alone, since not all variables were read`
        : `known by ${name.identifier?.variable}: its cells have changed since`,
    ];
  }

  /** In files of other names: only with the same cells and an identifier among them. */
  private elsewhere(name: RowName, taken: ReadonlySet<number>): [number | null, string] {
    const gone = `${name.file} is not among the files`;
    if (name.identifier === null) return [null, gone];
    for (const [file, { name: other }] of this.extract.files.entries()) {
      const alike = this.alike(name, file)?.filter((row) => !taken.has(row)) ?? [];
      if (alike.length) return [alike[0], `${gone}; ${other} holds the same row`];
    }
    return [null, gone];
  }

  /** Rows of a file with the same cells; `null` where that cannot be told. */
  private alike(name: RowName, file: number): number[] | null {
    if (name.cells === null) return null;
    const source = this.extract.files[file];
    const columns = checkable(this.extract, source, name);
    if (!columns) return null;
    const key = JSON.stringify([file, name.of]);
    let rowsOf = this.printed.get(key);
    if (!rowsOf) {
      rowsOf = new Map();
      const rows = Array.from({ length: source.rows }, (_, i) => this.starts[file] + i);
      for (const [i, print] of fingerprints(columns, rows).entries()) {
        putUnder(rowsOf, print, rows[i]);
      }
      this.printed.set(key, rowsOf);
    }
    return rowsOf.get(name.cells) ?? [];
  }

  /** The one row of a file, or the one at its place, that the identifier tells. */
  private byIdentifier({ identifier, row }: RowName, file: number): number | null {
    const column = this.extract.variables.find(({ name }) => name === identifier?.variable)?.column;
    if (!identifier || !column) return null;
    const [from, to] = [this.starts[file], this.starts[file + 1]];
    const rows: number[] = [];
    for (let at = from; at < to; at++) if (column.text(at).trim() === identifier.text) rows.push(at);
    return rows.length === 1 ? rows[0] : rows.includes(from + row) ? from + row : null;
  }
}

/** Columns of a file, in any order, that a fingerprint is taken of. */
function columnsOf(extract: Extract, file: FileSource, of: readonly string[] | null): Variable[] {
  const wanted = new Set(of ?? file.names);
  return extract.variables.filter(({ name }) => wanted.has(name) && file.names.includes(name));
}

/** The columns that a name's fingerprint is of; `null` where not all of them were read. */
function checkable(extract: Extract, file: FileSource, { of }: RowName): Variable[] | null {
  const read = extract.part?.names;
  if (read && (of === null || of.some((name) => !read.includes(name)))) return null;
  return columnsOf(extract, file, of);
}

/** The zero-based file that a zero-based row of the whole stands in. */
function fileAt(starts: readonly number[], row: number): number {
  let file = 0;
  while (file < starts.length - 2 && row >= starts[file + 1]) file++;
  return file;
}

/**
 * Fingerprints of rows: the sum over their cells that are not empty of a 64-bit hash of name and text (FNV-1a twice, mixed),
 * so that neither the order of columns nor columns that others brought change it. Names are taken without regard to case.
 */
function fingerprints(variables: readonly Variable[], rows: readonly number[]): string[] {
  const high = new Uint32Array(rows.length);
  const low = new Uint32Array(rows.length);
  for (const { name, column } of variables) {
    const head = name.toLowerCase();
    const seeds = [hashed(0x811c9dc5, head), hashed(0x9747b28c, head)] as const;
    // Each distinct text is hashed once.
    const known = new Map<string, readonly [number, number]>();
    for (const [i, row] of rows.entries()) {
      const text = column.text(row);
      if (text === '') continue;
      let pair = known.get(text);
      if (!pair) {
        pair = [mixed(hashed(seeds[0], text)), mixed(hashed(seeds[1], text))];
        if (known.size < MOST_REMEMBERED) known.set(text, pair);
      }
      high[i] += pair[0];
      low[i] += pair[1];
    }
  }
  const hex = (part: number): string => part.toString(16).padStart(8, '0');
  return rows.map((_, i) => hex(high[i]) + hex(low[i]));
}

/** Hashes of texts that are remembered while one column is gone through. */
const MOST_REMEMBERED = 50_000;

function hashed(seed: number, text: string): number {
  let hash = Math.imul(seed ^ text.length, 0x01000193);
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash;
}

/** The finalizer of MurmurHash3 (Appleby 2011, public domain): every bit of the input moves every bit of the output. */
function mixed(hash: number): number {
  let h = hash ^ (hash >>> 16);
  h = Math.imul(h, 0x85ebca6b);
  h ^= h >>> 13;
  h = Math.imul(h, 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}
