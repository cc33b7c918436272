import { ColumnBuilder, type Column } from '../core/extract/column';
import type { Codebook, ColumnPass, Extract, Variable } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import { sampleOf } from '../core/intake/pass';
import { placeText } from './address';
import { asked, type AskedColumn } from './cells';
import type { Described } from './catalogue';
import { quoted, type Connection, type Row } from './connection';
import { MOST_TEXTS, tallies, tally, tallyOfKey } from './tallying';
import { EVERYWHERE, type Where } from './where';

/** How far getting to know a table is. */
export type Progress = (says: string, done: number, whole: number, rows: number) => void;

export interface Choices {
  /** Only these columns; all where it is `null`. */
  names?: readonly string[] | null;
  codebook?: Codebook | null;
  /** Rows that are held at most; of a table with no more, all are. By default what a table of its width has room for. */
  most?: number;
  progress?: Progress;
}

/** Different texts in a sample up to which a column is counted together with others in one pass. */
const FEW = 2_000;
const BATCH = 2_000;
/** Cells that are fetched at most where all rows are wanted. */
const MOST_FETCHED = 400_000_000;

/** An extract of a table, whose rows stay where they are: all are counted there, and some are held. */
export interface TableExtract {
  extract: Extract;
  table: Described;
  columns: Map<string, AskedColumn>;
  /** Rows of it that are held at most. */
  room: number;
}

/** @throws InputError where the table has no column that is wanted, and for whatever the server refuses */
export async function tableExtract(
  connection: Connection,
  table: Described,
  { names = null, codebook = null, most, progress }: Choices = {},
): Promise<TableExtract> {
  const file = placeText(connection.place);
  const wanted = names ? table.columns.filter(({ name }) => names.includes(name)) : table.columns;
  if (wanted.length === 0)
    throw new InputError({
      file,
      element: table.name,
      says: names
        ? `none of the wanted variables is there (${names.slice(0, 5).join(', ')}); check their names`
        : 'it has no column that this user may read',
    });
  const columns = wanted.map(asked);
  progress?.('Counting rows', 0, columns.length, 0);
  const [[counted]] = await connection.rows({ text: `SELECT count(*)::text FROM ${table.from}` }, table.name);
  const all = Number(counted);
  const room = most ?? sampleOf(columns.length);
  if (room === Infinity && all * columns.length > MOST_FETCHED)
    throw new InputError({
      file,
      element: table.name,
      says: `its ${all} rows of ${columns.length} variables are more than can be fetched to be written; take some variables, or the rows of a query`,
    });
  const rows: RowsWanted = { where: EVERYWHERE, all, room };
  const held = await heldRows(connection, table, columns, rows);
  const passes =
    all <= room
      ? null
      : await passesOf(connection, table, columns, held.columns, rows, { codebook, progress });
  const variables = wanted.map(({ name }, i): Variable => {
    const pass = passes?.get(name);
    return {
      name,
      position: i + 1,
      column: held.columns[i],
      entry: null,
      ...(pass ? { pass } : {}),
    };
  });
  const unordered = table.key.length === 0;
  return {
    table,
    columns: new Map(columns.map((column) => [column.name, column])),
    room,
    extract: {
      name: table.name,
      files: [
        {
          name: table.name,
          bytes: 0,
          rows: held.rows,
          ...(passes ? { read: all } : {}),
          columns: wanted.length,
          form: 'table',
          encoding: 'utf-8',
          delimiter: null,
          header: true,
          names: wanted.map(({ name }) => name),
          notices: unordered
            ? [
                {
                  says: 'nothing tells its rows apart (no key), so they stand in the order in which the server gave them',
                },
              ]
            : [],
        },
      ],
      codebooks: [],
      notices: [],
      linkNotices: [],
      rows: held.rows,
      variables,
      ...(passes ? { pass: { rows: all } } : {}),
      ...(names ? { part: { rows: null, names: wanted.map(({ name }) => name) } } : {}),
    },
  };
}

/** Rows that are wanted: which, how many those are, and how many of them are held at most. */
interface RowsWanted {
  where: Where;
  all: number;
  room: number;
}

/** All rows in the order of the key, or each with the same chance. */
async function heldRows(
  connection: Connection,
  { from, key, drawable, name }: Described,
  columns: readonly AskedColumn[],
  { where, all, room }: RowsWanted,
): Promise<{ rows: number; columns: Column[] }> {
  const builders = columns.map(() => new ColumnBuilder());
  const order = key.length ? `ORDER BY ${key.map(quoted).join(', ')}` : '';
  const share = room / Math.max(1, all);
  const drawn =
    share >= 1
      ? `${from} ${where.sql}`
      : drawable
        ? `${from} TABLESAMPLE BERNOULLI (${share * 100}) REPEATABLE (1) ${where.sql}`
        : `${from} ${where.sql ? `${where.sql} AND` : 'WHERE'} random() < ${share}`;
  let rows = 0;
  const statement = {
    text: `SELECT ${columns.map(({ text }) => text).join(', ')} FROM ${drawn} ${order}`,
    values: where.values,
  };
  const take = (batch: Row[]): void => {
    const texts = batch.map((row) => row.map((text) => text ?? ''));
    builders.forEach((builder, i) => builder.pushFrom(texts, i));
    rows += batch.length;
  };
  await connection.batches(statement, BATCH, take, name);
  return { rows, columns: builders.map((builder) => builder.finish()) };
}

/** Of an extract only some rows, as if there were no others. @param rows how many they are */
export async function keptExtract(
  connection: Connection,
  { table, columns, room }: TableExtract,
  extract: Extract,
  where: Where,
  rows: number,
): Promise<Extract> {
  const inOrder = [...columns.values()];
  const wanted: RowsWanted = { where, all: rows, room };
  const held = await heldRows(connection, table, inOrder, wanted);
  const [codebook = null] = extract.codebooks;
  const passes = await passesOf(connection, table, inOrder, held.columns, wanted, { codebook });
  return {
    ...extract,
    rows: held.rows,
    pass: { rows },
    files: extract.files.map((file) => ({ ...file, rows: held.rows, read: rows })),
    variables: extract.variables.map((variable, i) => ({
      ...variable,
      column: held.columns[i],
      pass: passes.get(variable.name),
    })),
  };
}

/** What all rows hold, column by column: few different texts together in one pass, many each by a statement of its own. */
async function passesOf(
  connection: Connection,
  { from, key, isPrimary }: Described,
  columns: readonly AskedColumn[],
  held: readonly Column[],
  { where, all }: RowsWanted,
  { codebook = null, progress }: { codebook?: Codebook | null; progress?: Progress },
): Promise<Map<string, ColumnPass>> {
  const isFew = (i: number): boolean => (held[i].distinct?.length ?? Infinity) <= FEW;
  const few = columns.filter((_, i) => isFew(i));
  const many = columns.filter((_, i) => !isFew(i));
  const told = (done: number): void => progress?.('Counting on the server', done, columns.length, all);
  told(0);
  const rows = { from, where };
  const found = await tallies(connection, rows, few);
  const said = new Map(
    codebook?.entries.map(({ name, categories }) => [name, categories.map(({ code }) => code)]),
  );
  for (const [i, column] of many.entries()) {
    told(few.length + i);
    const codes = said.get(column.name) ?? [];
    const isKey = isPrimary && key.length === 1 && key[0] === column.name && all > MOST_TEXTS;
    found.set(
      column.name,
      isKey
        ? await tallyOfKey(connection, rows, column, codes, all)
        : await tally(connection, rows, column, codes),
    );
  }
  return found;
}
