import { bitsOf, type Bits } from '../extract/bits';
import { columnWith, longerBy } from '../extract/mended-column';
import type { ColumnPass, Extract, Variable } from '../extract/extract';
import { locateRows, nameRows, type Located, type RowName } from '../extract/row-names';
import { repeatedHeaders } from '../flags/rows/repeated-header';
import type { Correction } from '../log/changes';
import type { Entry } from '../log/entries';
import { inForce, type State } from '../log/fold';

/** What the person's word makes of the received rows and cells. */
export interface Basis {
  /** The received extract, with corrected cells and added rows laid over it; rows have the places that they were received at. */
  extract: Extract;
  /** Zero-based rows that a person set aside: they are not there at all. */
  aside: ReadonlySet<number>;
  /** All others; `null` where none was set aside. */
  there: Bits | null;
  /** Rows that repeat the names of the columns: they say nothing of what the others hold. */
  headers: readonly number[];
  /** Corrected cells by variable and zero-based row, with the received text. */
  corrected: ReadonlyMap<string, ReadonlyMap<number, string>>;
  /** Where the rows stand that decisions name. */
  located: readonly Located[];
  /** What was said of rows and cells that are not so here. */
  misfits: readonly string[];
}

/** Works the basis out, and what has not changed since the last time not again. */
export class Bases {
  private readonly places = new Map<RowName, Located>();
  /** Variables with corrected cells or added rows, by what was done to them. */
  private readonly mended = new Map<string, { key: string; variable: Variable }>();
  private last: { key: string; extract: Extract } | null = null;

  constructor(private readonly received: Extract) {}

  under({ aside: names, corrections, added }: State): Basis {
    const located = this.locate([...names, ...corrections.map(({ row }) => row)], added);
    const placeOf = new Map(located.map((one) => [one.name, one]));
    const misfits: string[] = [];
    const corrected = this.correctedCells(corrections, placeOf, misfits);
    const extract = this.mend(corrected, added);
    const aside = new Set(names.flatMap((name) => placeOf.get(name)?.row ?? []));
    return {
      extract,
      aside,
      there: aside.size === 0 ? null : bitsOf(extract.rows, (row) => !aside.has(row)),
      headers: repeatedHeaders(extract).filter((row) => !aside.has(row)),
      corrected: new Map(
        [...corrected].map(([name, cells]) => [
          name,
          new Map([...cells].map(([row, { from }]) => [row, from])),
        ]),
      ),
      located: names.flatMap((name) => placeOf.get(name) ?? []),
      misfits,
    };
  }

  /** Rows that decisions name are looked for once; those that were added stand behind all others. */
  private locate(names: readonly RowName[], added: State['added']): Located[] {
    const fresh = names.filter((name) => name.added === undefined && !this.places.has(name));
    for (const one of locateRows(this.received, fresh)) this.places.set(one.name, one);
    const place = new Map(added.map(({ id }, i) => [id, this.received.rows + i]));
    return names.flatMap((name): Located[] => {
      if (name.added === undefined) {
        const known = this.places.get(name);
        return known ? [known] : [];
      }
      const row = place.get(name.added) ?? null;
      return [{ name, row, says: row === null ? 'it is not added any more' : null }];
    });
  }

  private correctedCells(
    corrections: readonly Correction[],
    placeOf: ReadonlyMap<RowName, Located>,
    misfits: string[],
  ): Map<string, Map<number, { from: string; to: string }>> {
    const columns = new Map(this.received.variables.map(({ name, column }) => [name, column]));
    const found = new Map<string, Map<number, { from: string; to: string }>>();
    for (const { row: name, variable, from, to } of corrections) {
      const place = placeOf.get(name);
      const column = columns.get(variable);
      const says = (why: string): number =>
        misfits.push(`${variable} was to be corrected to “${to}”, but ${why}`);
      if (!column) says(`there is no ${variable} here`);
      else if (place?.row === null || !place) says(place?.says ?? 'its row was not found');
      else if (place.row < column.rows && column.text(place.row) !== from)
        says(`the cell holds “${column.text(place.row)}” here, not “${from}”`);
      // A cell that counts as it was received is corrected no more.
      else if (from !== to) {
        const cells = found.get(variable) ?? new Map<number, { from: string; to: string }>();
        cells.set(place.row, { from, to });
        found.set(variable, cells);
      }
    }
    return found;
  }

  private mend(
    corrected: ReadonlyMap<string, ReadonlyMap<number, { from: string; to: string }>>,
    added: State['added'],
  ): Extract {
    if (corrected.size === 0 && added.length === 0) return this.received;
    const { received } = this;
    const variables = received.variables.map((variable): Variable => {
      const cells = corrected.get(variable.name);
      const more = added.map(({ cells: own }) => own[variable.name] ?? '');
      if (!cells && more.length === 0) return variable;
      const key = JSON.stringify([[...(cells ?? [])], more]);
      const known = this.mended.get(variable.name);
      if (known?.key === key) return known.variable;
      const texts = new Map([...(cells ?? [])].map(([row, { to }]) => [row, to]));
      const column = columnWith(longerBy(variable.column, more), texts);
      const { pass } = variable;
      const made = {
        ...variable,
        column,
        ...(pass ? { pass: passWith(pass, [...(cells?.values() ?? [])], more) } : {}),
      };
      this.mended.set(variable.name, { key, variable: made });
      return made;
    });
    // The same extract as long as its variables are the same, so that what was worked out of it holds.
    const key = variables.map(({ name }) => this.mended.get(name)?.key ?? '').join('\n');
    if (this.last?.key === key && this.last.extract.variables.every((one, i) => one === variables[i]))
      return this.last.extract;
    const extract = { ...received, rows: received.rows + added.length, variables };
    this.last = { key, extract };
    return extract;
  }
}

/** What all rows hold once cells are corrected and rows added. */
function passWith(
  pass: ColumnPass,
  corrected: readonly { from: string; to: string }[],
  added: readonly string[],
): ColumnPass {
  const held = new Map(pass.texts.map((text, i) => [text, pass.counts[i]]));
  const change = (text: string, rows: number): void => void held.set(text, (held.get(text) ?? 0) + rows);
  for (const { from, to } of corrected) {
    // What was not counted by itself is taken off nothing that was.
    if (held.has(from)) change(from, -1);
    change(to, 1);
  }
  for (const text of added) change(text, 1);
  const left = [...held].filter(([, rows]) => rows > 0);
  return { ...pass, texts: left.map(([text]) => text), counts: Float64Array.from(left, ([, rows]) => rows) };
}

/** Rows as a decision names them, those that a person added by their ids. @param rows zero-based @param unitsBy the variable that tells units apart */
export function namedRows(
  received: Extract,
  added: State['added'],
  rows: readonly number[],
  unitsBy: string | null,
): RowName[] {
  const first = received.rows;
  const named = nameRows(
    received,
    rows.filter((row) => row < first),
    unitsBy,
  );
  let next = 0;
  return rows.map((row): RowName => {
    if (row < first) return named[next++];
    const { id, cells } = added[row - first];
    const text = unitsBy === null ? undefined : cells[unitsBy];
    const identifier = unitsBy !== null && text ? { variable: unitsBy, text } : null;
    return { file: null, row, cells: null, of: null, identifier, added: id };
  });
}

/** An entry that set rows aside: which of those asked for, and how many others. */
export interface AsideBy {
  entry: Entry;
  own: RowName[];
  others: number;
}

/** Entries that set rows aside, each with those rows as it names them, and the others that it names. @param rows zero-based */
export function asideBy({ located }: Basis, rows: readonly number[], log: readonly Entry[]): AsideBy[] {
  const wanted = new Set(rows);
  const names = new Set(located.filter(({ row }) => row !== null && wanted.has(row)).map(({ name }) => name));
  return inForce(log).flatMap((entry) => {
    if (entry.type !== 'set-aside' || !entry.rows.some((name) => names.has(name))) return [];
    return [
      {
        entry,
        own: entry.rows.filter((name) => names.has(name)),
        others: entry.rows.filter((name) => !names.has(name)).length,
      },
    ];
  });
}
