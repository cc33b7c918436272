import { InputError } from '../core/extract/problem';
import type { Codebook, Extract } from '../core/extract/extract';
import type { Inspector } from '../core/inspect/inspect';
import type { AllRows } from '../core/rows/all-rows';
import type { Connection } from '../database/connection';
import type { TableSource } from '../database/source';
import type { TableWanted } from '../core/intake/sent';

/** Options by which a table is named instead of files. */
export interface DatabaseOptions {
  database?: string;
  table?: string;
  query?: string;
  timeout?: number;
}

/** Whether a table is to be inspected, and no file. @throws InputError where both are named, or too little */
export function isOfDatabase(paths: readonly string[], options: DatabaseOptions): boolean {
  const { database, table, query } = options;
  const refuse = (says: string): InputError => new InputError({ file: 'dig', says });
  if (database === undefined && table === undefined && query === undefined) {
    if (paths.length === 0) throw refuse('name a file, or a table with --database and --table');
    return false;
  }
  if (paths.length) throw refuse('files and a table of a database are two extracts; name one of them');
  if (table === undefined && query === undefined)
    throw refuse('name a table with --table, or write a query with --query');
  if (table !== undefined && query !== undefined)
    throw refuse('--table and --query name two extracts; give one of them');
  return true;
}

/** The open table, until the command has ended. */
let open: TableSource | null = null;
let connection: Connection | null = null;

/** @throws InputError in words */
export async function openTable(
  {
    database = process.env.DIG_DATABASE,
    table,
    query,
    timeout,
    columns,
    allRows = false,
  }: DatabaseOptions & { columns?: string[]; allRows?: boolean },
  codebooks: readonly Codebook[],
): Promise<Extract> {
  if (database === undefined)
    throw new InputError({
      file: '--database',
      says: 'give the address of the database, or set DIG_DATABASE to it',
    });
  // What speaks with databases is loaded where one is asked for: most commands ask none.
  const [{ Connection }, { TableSource }] = await Promise.all([
    import('../database/connection'),
    import('../database/source'),
  ]);
  connection = await Connection.open(database, { timeout });
  process.once('SIGINT', interrupted);
  const wanted: TableWanted = table === undefined ? { query: query ?? '' } : { table };
  open = await TableSource.open(connection, wanted, codebooks, {
    names: columns ?? null,
    ...(allRows ? { most: Infinity } : {}),
  });
  return open.extract;
}

/** The same extract with what is worked out only when the decisions in force are known; `null` where there is nothing more. */
export const completed = async (inspector: Inspector): Promise<Extract | null> =>
  open ? open.withQuartiles(inspector) : null;

/** All rows of the table, of which only some are held. @param extract the same as far as it is known by now */
export const rowsOfTable = (extract: Extract): AllRows | null => open?.rows(extract) ?? null;

/** What was under way on the server is stopped there too. */
function interrupted(): void {
  void connection?.stop().finally(() => process.exit(EXIT_INTERRUPTED));
}
const EXIT_INTERRUPTED = 130;

/** Lets the server go. */
export async function closeTable(): Promise<void> {
  process.off('SIGINT', interrupted);
  await connection?.close();
  connection = open = null;
}
