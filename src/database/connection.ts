import pg from 'pg';
import Cursor from 'pg-cursor';
import pgpass from 'pgpass';
import { Stopped } from '../core/extract/problem';
import { passwordOf, placeOf, type Place } from './address';
import { inWords } from './trouble';

/** Milliseconds until a server that does not answer is given up. */
const PATIENCE = 15_000;
/** How every session writes what `COPY … TO` would: ISO dates, UTC, the shortest digits that give a number back. */
const SETTINGS = [
  "SET TimeZone TO 'UTC'",
  'SET DateStyle TO ISO',
  'SET IntervalStyle TO postgres',
  'SET extra_float_digits TO 1',
  'SET bytea_output TO hex',
  'SET standard_conforming_strings TO on',
  "SET application_name TO 'dig-first'",
  // Lists of texts are joined to rows of which the server cannot know how many pass: never one by one.
  'SET enable_nestloop TO off',
  'SET jit TO off',
  // The same sample each time: rows come from the start, and chance is the same.
  'SET synchronize_seqscans TO off',
];
/** Memory that one step of a statement may take on the server before it goes to its disk. */
const WORK_MEMORY = '256MB';

/** Every value comes as the text that the server writes; `null` for NULL. */
const AS_TEXT = { getTypeParser: () => (value: string) => value };

export type Row = (string | null)[];

export interface Statement {
  text: string;
  values?: readonly unknown[];
}

export interface Opening {
  /** Seconds that a statement may take; without end where it is 0. */
  timeout?: number;
  /** Whether no password but that of the address itself may go there: the address is not of whoever started the program. */
  alone?: boolean;
}

/**
 * One connection: a read-only transaction in which all statements see the same rows. It counts what it asked and what came back.
 */
export class Connection {
  statements = 0;
  private stopped = false;
  /** Whether the server is gone, or ended the connection. */
  private lost = false;
  /** Resolves when what was asked before is answered: one statement at a time. */
  private before: Promise<unknown> = Promise.resolve();

  private constructor(
    private readonly client: pg.Client,
    private readonly address: string,
    readonly place: Place,
    private readonly alone: boolean,
  ) {
    const gone = (): void => {
      this.lost = true;
    };
    client.on('error', gone).on('end', gone);
  }

  /** @throws InputError in words; no word of the address but host, port and database is told */
  static async open(address: string, { timeout = 0, alone = false }: Opening = {}): Promise<Connection> {
    const place = placeOf(address);
    const client = clientOf(address, alone);
    // What happens between statements is told by the next one.
    client.on('error', () => undefined);
    try {
      await client.connect();
      const made = new Connection(client, address, place, alone);
      await client.query(
        [
          ...SETTINGS,
          `SET work_mem TO '${WORK_MEMORY}'`,
          `SET statement_timeout TO ${Math.round(timeout * 1000)}`,
          'BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY',
          'SELECT setseed(0.42)',
        ].join('; '),
      );
      return made;
    } catch (cause) {
      await client.end().catch(() => undefined);
      throw inWords(cause, place);
    }
  }

  /** Bytes that came back so far. */
  get bytes(): number {
    return (
      (this.client as unknown as { connection: { stream: { bytesRead?: number } } }).connection.stream
        .bytesRead ?? 0
    );
  }

  /** All rows of a statement. @param element what is asked for, for words */
  rows({ text, values = [] }: Statement, element?: string): Promise<Row[]> {
    return this.next(element, async () => {
      const { rows } = await this.client.query<Row>({
        text,
        values: [...values],
        rowMode: 'array',
        types: AS_TEXT as never,
        queryMode: 'extended',
      } as pg.QueryArrayConfig);
      return rows;
    });
  }

  /** The columns that a statement would give, with their types as the server numbers them. */
  columnsOf({ text }: Statement, element?: string): Promise<{ name: string; type: number; mod: number }[]> {
    return this.next(element, async () => {
      const { fields } = await this.client.query({ text, queryMode: 'extended' } as pg.QueryConfig);
      return fields.map(({ name, dataTypeID, dataTypeModifier }) => ({
        name,
        type: dataTypeID,
        mod: dataTypeModifier,
      }));
    });
  }

  /** Takes the rows of a statement, some at a time: no more are held. */
  batches(
    { text, values = [] }: Statement,
    size: number,
    take: (rows: Row[]) => void,
    element?: string,
  ): Promise<void> {
    return this.next(element, async () => {
      const cursor = this.client.query(
        new Cursor<Row>(text, [...values] as never[], { rowMode: 'array', types: AS_TEXT as never }),
      );
      try {
        for (let rows = await cursor.read(size); rows.length; rows = await cursor.read(size)) take(rows);
      } finally {
        // A server that is gone answers nothing more, not even that.
        if (!this.lost) await inTime(cursor.close());
      }
    });
  }

  /** Asks when what was asked before is answered. @throws InputError in words, `Stopped` where a person stopped it */
  private next<T>(element: string | undefined, ask: () => Promise<T>): Promise<T> {
    const mine = this.before.then(async () => {
      this.statements++;
      try {
        return await ask();
      } catch (cause) {
        throw this.stopped ? new Stopped() : inWords(cause, this.place, element);
      }
    });
    this.before = mine.catch(() => undefined);
    return mine;
  }

  /** Stops on the server whatever is being worked out there; whoever asked for it is told that it was stopped. */
  async stop(): Promise<void> {
    this.stopped = true;
    const pid = (this.client as unknown as { processID: number }).processID;
    const other = clientOf(this.address, this.alone);
    other.on('error', () => undefined);
    try {
      await other.connect();
      await other.query('SELECT pg_cancel_backend($1)', [pid]);
    } finally {
      await inTime(other.end());
    }
  }

  async close(): Promise<void> {
    await inTime(this.client.end());
    (this.client as unknown as { connection: { stream: { destroy(): void } } }).connection.stream.destroy();
  }
}

/** Waits for the end of something that nothing more hangs on, and no longer than a server that is there would take. */
async function inTime(ending: Promise<unknown>): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const patience = new Promise((resolve) => {
    timer = setTimeout(resolve, PATIENCE);
  });
  await Promise.race([ending.catch(() => undefined), patience]);
  clearTimeout(timer);
}

function clientOf(address: string, alone: boolean): pg.Client {
  const client = new pg.Client({
    connectionString: address,
    connectionTimeoutMillis: PATIENCE,
    keepAlive: true,
    // A server that was switched off says nothing: it is asked whether it is there.
    keepAliveInitialDelayMillis: PATIENCE,
  });
  if (alone) {
    // Neither the environment nor a pgpass file is looked into: an address may lead anywhere.
    const own = passwordOf(address);
    Object.assign(client, { password: () => own ?? Promise.reject(new Error('no password supplied')) });
    return client;
  }
  const { host, port, database, user } = client;
  // What neither the address nor the environment says may stand in a pgpass file.
  if (!client.password)
    Object.assign(client, {
      password: () =>
        new Promise<string | undefined>((resolve) => pgpass({ host, port, database, user }, resolve)),
    });
  return client;
}

/** A name quoted by the client's own rule. */
export const quoted = (name: string): string => pg.escapeIdentifier(name);
