import type { ZodType } from 'zod';
import type { Extract } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import {
  extractFrom,
  knownSchema,
  openLineSchema,
  refusedSchema,
  tablesSchema,
  type DatabaseAsk,
  type TableWanted,
  type Tables,
} from '../core/intake/sent';
import type { Tell } from './protocol';

const PLACE = '/api/database';

/** Asks the program that serves this page. @throws InputError where it refuses, or is not there */
async function asked(ask: DatabaseAsk, signal?: AbortSignal): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(PLACE, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(ask),
      signal: signal ?? null,
    });
  } catch {
    throw gone('cannot be reached; see whether it still runs');
  }
  if (response.ok) return response;
  const refused = refusedSchema.safeParse(await response.json().catch(() => null));
  throw refused.success ? new InputError(refused.data.problem) : gone(`refused (${response.status})`);
}

const gone = (says: string): InputError =>
  new InputError({ file: 'the program that serves this page', says });

async function answerTo<T>(ask: DatabaseAsk, schema: ZodType<T>): Promise<T> {
  const read = schema.safeParse(await (await asked(ask)).json().catch(() => null));
  if (!read.success) throw gone('gave an answer that is none');
  return read.data;
}

export const knownDatabase = (): Promise<{ at: string | null }> => answerTo({ ask: 'known' }, knownSchema);
export const databaseTables = (address: string | null): Promise<Tables> =>
  answerTo({ ask: 'tables', address }, tablesSchema);

/** Bytes are looked at so often for a wish to stop, in milliseconds. */
const BETWEEN_LOOKS = 200;

/**
 * What is known of a table, whose rows stay where they are; a sample of them comes along, to be held in memory.
 * @param breathe throws where it is to stop: the database is stopped then, too
 */
export async function tableFrom(
  session: string,
  wanted: TableWanted,
  tell: Tell,
  breathe: () => Promise<void>,
): Promise<Extract> {
  const stop = new AbortController();
  try {
    const response = await listened(asked({ ask: 'open', session, wanted }, stop.signal), breathe);
    const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
    if (!reader) throw gone('gave no answer');
    let rest = '';
    const parts: string[] = [];
    for (;;) {
      const { value, done } = await listened(reader.read(), breathe);
      if (value) parts.push(value);
      if (!done && !value?.includes('\n')) continue;
      const lines = (rest + parts.splice(0).join('')).split('\n');
      rest = lines.pop() ?? '';
      for (const line of lines) {
        const read = openLineSchema.safeParse(JSON.parse(line));
        if (!read.success) throw gone('gave an answer that is none');
        if ('progress' in read.data) tell(read.data.progress);
        else if ('problem' in read.data) throw new InputError(read.data.problem);
        else return extractFrom(read.data.extract);
      }
      if (done)
        throw gone('ended before it had answered; the connection to the database may be lost, try again');
    }
  } catch (cause) {
    stop.abort();
    throw cause;
  }
}

/** Waits, and hears meanwhile whether it is to stop. */
async function listened<T>(work: Promise<T>, breathe: () => Promise<void>): Promise<T> {
  for (;;) {
    const first = await Promise.race([
      work.then((value) => ({ value })),
      new Promise<null>((resolve) => setTimeout(() => resolve(null), BETWEEN_LOOKS)),
    ]);
    await breathe();
    if (first) return first.value;
  }
}
