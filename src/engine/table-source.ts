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
  type OpenLine,
  START_HEADER,
  type TableWanted,
  type Tables,
} from '../core/intake/sent';
import type { KeptRows } from '../core/rows/all-rows';
import { startSecret } from '../storage/start-secret';
import type { Tell } from './protocol';

const PLACE = '/api/database';

/** Asks the program that serves this page. @throws InputError where it refuses, or is not there */
async function asked(ask: DatabaseAsk, signal?: AbortSignal): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(PLACE, {
      method: 'POST',
      headers: {
        'Content-Type': 'application/json',
        // Only who started the program has the address that it stands in.
        [START_HEADER]: (await startSecret()) ?? '',
      },
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

/** One answer as JSON. @throws InputError where the database refuses, or the answer is none */
export async function answerTo<T>(ask: DatabaseAsk, schema: ZodType<T>): Promise<T> {
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
  let found: Extract | null = null;
  await lines({ ask: 'open', session, wanted }, breathe, (line) => {
    if ('progress' in line) tell(line.progress);
    else if ('extract' in line) found = extractFrom(line.extract);
  });
  if (!found) throw lost();
  return found;
}

/** What some rows of a table come to. */
export async function keptFrom(
  ask: DatabaseAsk & { ask: 'kept' },
  breathe: () => Promise<void>,
): Promise<{ counts: Omit<KeptRows, 'extract'>; extract: Extract | null }> {
  const found: { counts: Omit<KeptRows, 'extract'> | null; extract: Extract | null } = {
    counts: null,
    extract: null,
  };
  await lines(ask, breathe, (line) => {
    if ('counts' in line) found.counts = line.counts;
    else if ('extract' in line) found.extract = extractFrom(line.extract);
  });
  const { counts, extract } = found;
  if (!counts || (ask.figures && !extract)) throw lost();
  return { counts, extract };
}

const lost = (): InputError =>
  gone('ended before it had answered; the connection to the database may be lost, try again');

/** Takes an answer line by line as it comes. */
async function lines(
  ask: DatabaseAsk,
  breathe: () => Promise<void>,
  take: (line: OpenLine) => void,
): Promise<void> {
  const stop = new AbortController();
  try {
    const response = await listened(asked(ask, stop.signal), breathe);
    const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
    if (!reader) throw lost();
    let rest = '';
    const parts: string[] = [];
    for (;;) {
      const { value, done } = await listened(reader.read(), breathe);
      if (value) parts.push(value);
      if (!done && !value?.includes('\n')) continue;
      const whole = (rest + parts.splice(0).join('')).split('\n');
      rest = whole.pop() ?? '';
      for (const line of whole) {
        const read = openLineSchema.safeParse(JSON.parse(line));
        if (!read.success) throw gone('gave an answer that is none');
        if ('problem' in read.data) throw new InputError(read.data.problem);
        take(read.data);
      }
      if (done) return;
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
