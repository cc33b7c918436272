import { createHash, timingSafeEqual } from 'node:crypto';
import { databaseAskSchema, START_HEADER } from '../../../core/intake/sent';
import { counted, known, problemOf, streamed, tables } from '../../../database/serving';

export const runtime = 'nodejs';
export const dynamic = 'force-dynamic';

const HEADERS = { 'Cache-Control': 'no-store', 'X-Content-Type-Options': 'nosniff' };
const answer = (of: object, status = 200): Response => Response.json(of, { status, headers: HEADERS });
const refuse = (status: number, says: string): Response =>
  answer({ problem: { file: 'the database', says } }, status);
/** Longer requests are none of a page of ours. */
const MOST_BYTES = 1 << 28;

/**
 * Whether a request comes from a page of whoever started the program. Headers such as the origin are what any program on the
 * machine can write; the secret stands only in the address that the start printed.
 */
function knowsSecret(request: Request): boolean {
  const secret = process.env.DIG_START ?? '';
  const said = request.headers.get(START_HEADER) ?? '';
  const digest = (text: string): Buffer => createHash('sha256').update(text).digest();
  return secret !== '' && timingSafeEqual(digest(said), digest(secret));
}

/**
 * Questions to a database, from pages of this very program, opened by whoever started it, alone: a request of another origin is
 * refused, whatever it asks. The name that it is reached by is checked before (`proxy.ts`).
 */
export async function POST(request: Request): Promise<Response> {
  const host = request.headers.get('host') ?? '';
  const origin = request.headers.get('origin');
  const isOurs = origin === `http://${host}` || origin === `https://${host}`;
  if (!isOurs || (request.headers.get('sec-fetch-site') ?? 'same-origin') !== 'same-origin')
    return refuse(403, 'only pages of this program may ask');
  if (!knowsSecret(request))
    return refuse(
      403,
      'the program asks a database only for whoever started it: open the address that it printed when it was started, with all that stands behind the #',
    );
  if (request.headers.get('content-type') !== 'application/json') return refuse(415, 'this is asked in JSON');
  const text = await request.text();
  if (text.length > MOST_BYTES) return refuse(413, 'this is too long a question');
  let asked;
  try {
    asked = databaseAskSchema.safeParse(JSON.parse(text));
  } catch {
    return refuse(400, 'this is no JSON');
  }
  if (!asked.success)
    return refuse(400, `this is no question that is known (${asked.error.issues[0].message})`);
  try {
    switch (asked.data.ask) {
      case 'known':
        return answer(known());
      case 'tables':
        return answer(await tables(asked.data));
      case 'count':
        return answer(await counted(asked.data));
      case 'open':
      case 'kept':
        return new Response(streamed(asked.data), {
          headers: { ...HEADERS, 'Content-Type': 'application/x-ndjson; charset=utf-8' },
        });
    }
  } catch (cause) {
    return answer({ problem: problemOf(cause) }, 422);
  }
}
