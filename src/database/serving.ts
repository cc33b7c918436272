import { Inspector } from '../core/inspect/inspect';
import { InputError, Stopped, type Problem } from '../core/extract/problem';
import { askedFrom } from '../core/intake/asked-far';
import { sentOf, type DatabaseAsk, type OpenLine, type TableWanted, type Tables } from '../core/intake/sent';
import { leadsAlike, placeOf, placeText } from './address';
import { tablesIn } from './catalogue';
import { Connection } from './connection';
import { TableSource } from './source';

/** Seconds that one statement may take, where somebody waits before a screen. */
const TIMEOUT = 3600;
/** Addresses that are remembered at most; the oldest goes. */
const MOST_SESSIONS = 20;

/** Addresses that a page gave, by what it asks with: they are in the memory of this program alone. */
const sessions = new Map<string, string>();

/** Where the database is that this program was told of when it was started; nothing of its password. */
export function known(): { at: string | null } {
  const address = process.env.DIG_DATABASE;
  return { at: address ? placeText(placeOf(address)) : null };
}

/**
 * Opens a connection to an address that a page gave. Passwords of the environment and of a pgpass file are for the database that
 * the start of the program named, and for no other.
 */
function openedAt(address: string): Promise<Connection> {
  const own = process.env.DIG_DATABASE;
  const alone = !own || !leadsAlike(address, own);
  return Connection.open(address, { timeout: TIMEOUT, alone });
}

/** The tables that may be read, and what to ask for one of them with. @throws InputError in words */
export async function tables({ address }: DatabaseAsk & { ask: 'tables' }): Promise<Tables> {
  const at = address ?? process.env.DIG_DATABASE;
  if (!at)
    throw new InputError({
      file: 'the database',
      says: 'give its address: postgres://user@host:port/database',
    });
  const connection = await openedAt(at);
  try {
    const listed = await tablesIn(connection);
    const session = crypto.randomUUID();
    sessions.set(session, at);
    for (const old of [...sessions.keys()].slice(0, Math.max(0, sessions.size - MOST_SESSIONS)))
      sessions.delete(old);
    return { session, at: placeText(connection.place), tables: listed };
  } finally {
    await connection.close();
  }
}

/** Opens a connection to where a session belongs. @throws InputError where it was let go */
function connected(session: string): Promise<Connection> {
  const address = sessions.get(session);
  if (!address)
    throw new InputError({
      file: 'the database',
      says: 'the connection was let go meanwhile; connect again',
    });
  return openedAt(address);
}

/** Rows in the cells of tables. @throws InputError in words */
export async function counted({
  session,
  wanted,
  rows,
  cells,
}: DatabaseAsk & { ask: 'count' }): Promise<object> {
  const connection = await connected(session);
  try {
    const { asked, categories, numbers } = askedFrom(rows);
    const counting = (await TableSource.far(connection, wanted, rows)).counting(asked);
    const found: object[] = [];
    for (const { by, weight, measure } of cells) {
      const codings = by.map(categories);
      const weighs = weight && numbers(weight);
      found.push(
        measure
          ? (await counting.measured(codings, numbers(measure), null, weighs)).map(plain)
          : plain(await counting.cross(codings, null, weighs)),
      );
    }
    return { counted: found };
  } finally {
    await connection.close();
  }
}

/** Typed arrays as JSON writes lists. */
const plain = (of: object): object =>
  Object.fromEntries(
    Object.entries(of).map(([name, value]) => [
      name,
      value instanceof Float64Array ? [...value] : (value as unknown),
    ]),
  );

/** Lines of JSON: how far getting to know a table, or some of its rows, is, then what is known, or what stands in the way. */
export function streamed(ask: DatabaseAsk & { ask: 'open' | 'kept' }): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let connection: Connection | null = null;
  return new ReadableStream({
    async start(controller) {
      const line = (of: OpenLine | { extract: object }): void =>
        controller.enqueue(encoder.encode(`${JSON.stringify(of)}\n`));
      try {
        connection = await connected(ask.session);
        if (ask.ask === 'open') await opened(connection, ask.wanted, line);
        else await kept(connection, ask, line);
      } catch (cause) {
        if (!(cause instanceof Stopped)) line({ problem: problemOf(cause) });
      } finally {
        await connection?.close();
        try {
          controller.close();
        } catch {
          // Whoever asked has gone.
        }
      }
    },
    // Whoever asked has gone, or stopped it: the server need not go on either.
    async cancel() {
      await connection?.stop().catch(() => undefined);
    },
  });
}

type Line = (of: OpenLine | { extract: object }) => void;

async function opened(connection: Connection, wanted: TableWanted, line: Line): Promise<void> {
  const progress = (says: string, done: number, whole: number, rows: number): void =>
    line({ progress: { says, done, whole, rows } });
  const source = await TableSource.open(connection, wanted, [], { progress });
  const inspector = new Inspector(source.extract);
  line({ extract: sentOf((await source.withQuartiles(inspector)) ?? source.extract) });
}

async function kept(
  connection: Connection,
  { wanted, rows, figures }: DatabaseAsk & { ask: 'kept' },
  line: Line,
): Promise<void> {
  const { asked } = askedFrom(rows);
  const { extract, ...counts } = await (await TableSource.far(connection, wanted, rows)).kept(asked, figures);
  line({ counts });
  if (extract) line({ extract: sentOf(extract) });
}

export function problemOf(cause: unknown): Problem {
  if (cause instanceof InputError) return cause.problem;
  const says = cause instanceof Error ? cause.message : String(cause);
  return { file: 'a defect of ours', says: `the database could not be asked (${says})` };
}
