import { parse } from 'pg-connection-string';
import { InputError } from '../core/extract/problem';

/** Where a database is, as far as it may be told: nothing here holds a password. */
export interface Place {
  host: string;
  port: number;
  database: string;
  user: string | null;
}

const PROTOCOLS = /^postgres(ql)?:\/\//i;
const USUAL_PORT = 5432;

/** "db.example:5432/panel", for sentences. */
export const placeText = ({ host, port, database }: Place): string => `${host}:${port}/${database}`;

/**
 * Takes an address apart. It is never repeated in what is said of it, since it may hold a password.
 * @throws InputError where it is no address of a database that speaks PostgreSQL's protocol
 */
export function placeOf(address: string): Place {
  const refuse = (says: string): InputError =>
    new InputError({
      file: 'the database',
      says: `${says}; give it as postgres://user@host:port/database, the password in PGPASSWORD or a pgpass file`,
    });
  if (!PROTOCOLS.test(address)) throw refuse('this is no address of a PostgreSQL database');
  let found: ReturnType<typeof parse>;
  try {
    found = parse(address);
  } catch {
    throw refuse('the address cannot be read');
  }
  const port = found.port ? Number(found.port) : Number(process.env.PGPORT ?? USUAL_PORT);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw refuse('the port is no number from 1 to 65535');
  const user = found.user ?? process.env.PGUSER ?? null;
  const database = found.database ?? process.env.PGDATABASE ?? user;
  if (!database) throw refuse('the address names no database');
  return { host: found.host ?? process.env.PGHOST ?? 'localhost', port, database, user };
}

/** The password that stands in an address itself; `null` where none does. */
export const passwordOf = (address: string): string | null => parse(address).password || null;

/** Whether two addresses lead to the same database of the same server, for the same user. */
export function leadsAlike(one: string, other: string): boolean {
  const [a, b] = [placeOf(one), placeOf(other)];
  return placeText(a) === placeText(b) && a.user === b.user;
}
