import { InputError, Stopped } from '../core/extract/problem';
import { placeText, type Place } from './address';

/** What the driver and the server throw. */
interface Thrown {
  code?: string;
  message?: string;
  detail?: string;
  position?: string;
  routine?: string;
}

/** What is wrong, and what now, by the server's SQLSTATE (PostgreSQL manual, appendix A) or the system's code. */
const WORDS: Readonly<Record<string, string>> = {
  ECONNREFUSED: 'no server answers there; check host and port, and that it runs',
  ENOTFOUND: 'there is no host of this name; check it',
  EAI_AGAIN: 'the name of the host could not be looked up; check it, and the network',
  EHOSTUNREACH: 'the host cannot be reached; check the network',
  ETIMEDOUT: 'it did not answer in time; check host, port and network',
  '28P01':
    'the password was refused; give another in PGPASSWORD or a pgpass file; on the screen, in the address itself unless DIG_DATABASE named it',
  '28000': 'it does not let this user in from here; ask who runs it',
  '3D000': 'there is no database of this name on the server; check it',
  '42501': 'this user may not read it; ask who runs the database for the right to select from it',
  '42P01': 'there is no such table',
  '42601': 'the query cannot be read',
  '25006': 'only what reads can be asked, and this would change something',
  '53300': 'the server has too many connections; try again later',
  '53100': 'the disk of the server is full; ask who runs it',
  '53200': 'the server has no memory left for this; take fewer variables, or ask who runs it',
  '57P01': 'the server was shut down meanwhile; open it again when it runs',
  '57P02': 'the server broke down meanwhile; open it again when it runs',
  '57P03': 'the server is starting up or shutting down; try again in a moment',
  '55P03': 'another session holds a lock on it; try again later',
};
const CANCELLED = '57014';

/** Something that went wrong with a database, in words. What the server says of rows is not repeated where it may hold a password. */
export function inWords(cause: unknown, place: Place, element?: string): unknown {
  if (cause instanceof InputError || cause instanceof Stopped) return cause;
  const { code = '', message = '', routine } = cause as Thrown;
  const at = placeText(place);
  const say = (says: string): InputError =>
    new InputError({ file: at, ...(element ? { element } : {}), says });
  if (code === CANCELLED)
    return message.includes('statement timeout')
      ? say('a statement took longer than it may; allow more with --timeout, or take fewer variables')
      : say('it was cancelled on the server');
  const known = WORDS[code];
  if (known) {
    const more = routine && /^(42601|42P01|25006)$/.test(code) ? ` (${message})` : '';
    return say(`${known}${more}`);
  }
  if (/password must be a string|no password supplied/i.test(message))
    return say(
      'it asks for a password; give it in PGPASSWORD or a pgpass file; on the screen, in the address itself unless DIG_DATABASE named it',
    );
  if (/SASL|SCRAM/.test(message)) return say(WORDS['28P01']);
  if (/does not support SSL/i.test(message))
    return say('the server speaks no TLS; leave sslmode out of the address');
  if (/timeout expired|timeout exceeded/i.test(message)) return say(WORDS.ETIMEDOUT);
  if (
    /terminated unexpectedly|ECONNRESET|Connection terminated|not queryable|EPIPE|socket/i.test(
      `${message} ${code}`,
    )
  )
    return say('the connection was lost meanwhile; nothing was changed there, open it again');
  if (code.length === 5) return say(`the server refused (${message})`);
  return say(`it could not be asked (${code || message})`);
}
