import { ColumnBuilder } from '../core/extract/column';
import type { Codebook, ColumnPass, Extract, Variable } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import { sampleOf } from '../core/intake/pass';
import { placeText } from './address';
import { asked, type AskedColumn } from './cells';
import type { Described } from './catalogue';
import { quoted, type Connection } from './connection';
import { tallies, tally, type Rows } from './tallying';
import { EVERYWHERE } from './where';

/** How far getting to know a table is. */
export type Progress = (says: string, done: number, whole: number, rows: number) => void;

export interface Choices {
  /** Only these columns; all where it is `null`. */
  names?: readonly string[] | null;
  codebook?: Codebook | null;
  /** Rows that are held at most; of a table with no more, all are. By default what a table of its width has room for. */
  most?: number;
  progress?: Progress;
  /** Lets others in; throws where it is to stop. */
  breathe?: () => Promise<void>;
}

/** Different texts in a sample up to which a column is counted together with others in one pass. */
const FEW = 2_000;
/** More of the sample's rows hold a text of their own than this share: the column has many texts. */
const MOST_OWN = 0.2;
const BATCH = 2_000;

/** An extract of a table, whose rows stay where they are: all are counted there, and some are held. */
export interface TableExtract {
  extract: Extract;
  table: Described;
  columns: Map<string, AskedColumn>;
}

/** @throws InputError where the table has no column that is wanted, and for whatever the server refuses */
export async function tableExtract(
  connection: Connection,
  table: Described,
  { names = null, codebook = null, most, progress, breathe = async () => undefined }: Choices = {},
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
  const rows: Rows = { from: table.from, where: EVERYWHERE };
  progress?.('Counting rows', 0, columns.length, 0);
  const [[counted]] = await connection.rows({ text: `SELECT count(*)::text FROM ${table.from}` }, table.name);
  const all = Number(counted);
  const room = most ?? sampleOf(columns.length);
  await breathe();
  const held = await heldRows(connection, table, columns, all <= room ? null : room / all);
  const passes =
    all <= room
      ? null
      : await passesOf(
          connection,
          rows,
          columns,
          held.builders.map((builder) => builder.finish().distinct),
          {
            codebook,
            progress,
            breathe,
            all,
          },
        );
  const entryOf = new Map(codebook?.entries.map((entry) => [entry.name, entry]));
  const variables = wanted.map(({ name }, i): Variable => {
    const pass = passes?.get(name);
    return {
      name,
      position: i + 1,
      column: held.builders[i].finish(),
      entry: entryOf.get(name) ?? null,
      ...(pass ? { pass } : {}),
    };
  });
  const unordered = table.key.length === 0;
  return {
    table,
    columns: new Map(columns.map((column) => [column.name, column])),
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
      codebooks: codebook ? [codebook] : [],
      notices: [],
      linkNotices: [],
      rows: held.rows,
      variables,
      ...(passes ? { pass: { rows: all } } : {}),
      ...(names ? { part: { rows: null, names: wanted.map(({ name }) => name) } } : {}),
    },
  };
}

/** All rows in the order of the key, or each with the same chance. @param share of the rows; `null` for all */
async function heldRows(
  connection: Connection,
  { from, key, drawable, name }: Described,
  columns: readonly AskedColumn[],
  share: number | null,
): Promise<{ rows: number; builders: ColumnBuilder[] }> {
  const builders = columns.map(() => new ColumnBuilder());
  const order = key.length ? `ORDER BY ${key.map(quoted).join(', ')}` : '';
  const drawn =
    share === null
      ? from
      : drawable
        ? `${from} TABLESAMPLE BERNOULLI (${share * 100}) REPEATABLE (1)`
        : `${from} WHERE random() < ${share}`;
  let rows = 0;
  const statement = { text: `SELECT ${columns.map(({ text }) => text).join(', ')} FROM ${drawn} ${order}` };
  for await (const batch of connection.batches(statement, BATCH, name)) {
    const texts = batch.map((row) => row.map((text) => text ?? ''));
    builders.forEach((builder, i) => builder.pushFrom(texts, i));
    rows += batch.length;
  }
  return { rows, builders };
}

/** What all rows hold, column by column: few different texts together in one pass, many each by a statement of its own. */
async function passesOf(
  connection: Connection,
  rows: Rows,
  columns: readonly AskedColumn[],
  sampled: readonly (readonly string[] | null)[],
  {
    codebook,
    progress,
    breathe,
    all,
  }: { codebook: Codebook | null; progress: Progress | undefined; breathe: () => Promise<void>; all: number },
): Promise<Map<string, ColumnPass>> {
  const isFew = (i: number): boolean => {
    const texts = sampled[i];
    return (
      texts !== null && texts.length <= FEW && texts.length <= Math.max(FEW * MOST_OWN, 100 + all * MOST_OWN)
    );
  };
  const few = columns.filter((_, i) => isFew(i));
  const many = columns.filter((_, i) => !isFew(i));
  const told = (done: number): void => progress?.('Counting on the server', done, columns.length, all);
  told(0);
  const found = await tallies(connection, rows, few);
  const said = new Map(
    codebook?.entries.map(({ name, categories }) => [name, categories.map(({ code }) => code)]),
  );
  for (const [i, column] of many.entries()) {
    await breathe();
    told(few.length + i);
    found.set(column.name, await tally(connection, rows, column, said.get(column.name) ?? []));
  }
  return found;
}
