import { Inspector } from '../core/inspect/inspect';
import { InputError, Stopped, type Problem } from '../core/extract/problem';
import { sentOf, type DatabaseAsk, type TableWanted, type Tables } from '../core/intake/sent';
import { placeOf, placeText } from './address';
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

/** The tables that may be read, and what to ask for one of them with. @throws InputError in words */
export async function tables({ address }: DatabaseAsk & { ask: 'tables' }): Promise<Tables> {
  const at = address ?? process.env.DIG_DATABASE;
  if (!at)
    throw new InputError({
      file: 'the database',
      says: 'give its address: postgres://user@host:port/database',
    });
  const connection = await Connection.open(at, { timeout: TIMEOUT });
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

/** Lines of JSON: how far getting to know a table is, then what is known of it, or what stands in the way. */
export function opening(session: string, wanted: TableWanted): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let connection: Connection | null = null;
  return new ReadableStream({
    async start(controller) {
      const line = (of: object): void => controller.enqueue(encoder.encode(`${JSON.stringify(of)}\n`));
      try {
        const address = sessions.get(session);
        if (!address)
          throw new InputError({
            file: 'the database',
            says: 'the connection was let go meanwhile; connect again',
          });
        connection = await Connection.open(address, { timeout: TIMEOUT });
        const progress = (says: string, done: number, whole: number, rows: number): void =>
          line({ progress: { says, done, whole, rows } });
        const source = await TableSource.open(connection, wanted, [], { progress });
        const inspector = new Inspector(source.extract);
        line({ extract: sentOf((await source.withQuartiles(inspector)) ?? source.extract) });
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

export function problemOf(cause: unknown): Problem {
  if (cause instanceof InputError) return cause.problem;
  const says = cause instanceof Error ? cause.message : String(cause);
  return { file: 'a defect of ours', says: `the database could not be asked (${says})` };
}
