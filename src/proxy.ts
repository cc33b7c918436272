import { NextResponse, type NextRequest } from 'next/server';

/** What every answer carries: nothing of it is read by another origin, and memory may be shared within. */
const ALWAYS: Record<string, string> = {
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'no-referrer',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
  'Cross-Origin-Resource-Policy': 'same-origin',
};

/** A worker follows the policy of its own script's answer, not the page's: it may load its parts and talk to this origin. */
const OF_SCRIPTS = "default-src 'none'; script-src 'self'; connect-src 'self'; frame-ancestors 'none'";

/**
 * Every page carries a strict Content-Security-Policy: scripts only from here and with this answer's nonce, no
 * connection to another host. Style attributes are allowed, since charts and lists place their parts with them.
 */
function policyOfPages(nonce: string): string {
  const developing = process.env.NODE_ENV === 'development';
  return [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${developing ? " 'unsafe-eval'" : ''}`,
    `style-src-elem 'self' ${developing ? "'unsafe-inline'" : `'nonce-${nonce}'`}`,
    "style-src-attr 'unsafe-inline'",
    `connect-src 'self'${developing ? ' ws:' : ''}`,
    "worker-src 'self' blob:",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "manifest-src 'self'",
    "base-uri 'none'",
    "form-action 'none'",
    "frame-ancestors 'none'",
  ].join('; ');
}

/** Names under which this program answers: those of this machine, and the one that it was told to listen on. */
const NAMES = new Set(['localhost', '127.0.0.1', '[::1]', ...(process.env.DIG_NAMES ?? '').split(',')]);

/** A page that was reached by a name that somebody made to point here could otherwise ask this program as if it were its own. */
function isOurName(host: string | null): boolean {
  return host !== null && NAMES.has(host.replace(/:\d+$/, '').toLowerCase());
}

function refuse(status: number, says: string): NextResponse {
  return new NextResponse(`${says}\n`, {
    status,
    headers: {
      ...ALWAYS,
      'Content-Type': 'text/plain; charset=utf-8',
      'Content-Security-Policy': OF_SCRIPTS,
    },
  });
}

function isDecodable(path: string): boolean {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
}

export function proxy(request: NextRequest): NextResponse {
  if (!isOurName(request.headers.get('host')))
    return refuse(
      421,
      'This program answers to the name that it was started under; use the address that it printed.',
    );
  if (!['GET', 'HEAD', 'POST'].includes(request.method)) return refuse(405, 'This cannot be asked for here.');
  const { pathname } = request.nextUrl;
  if (!isDecodable(pathname)) return refuse(400, 'This address is not written as addresses are.');
  const isPage = !pathname.startsWith('/_next/static/') && !pathname.startsWith('/demo/');
  const headers = new Headers(request.headers);
  let policy = OF_SCRIPTS;
  if (isPage) {
    const nonce = btoa(crypto.randomUUID());
    policy = policyOfPages(nonce);
    headers.set('x-nonce', nonce);
    headers.set('Content-Security-Policy', policy);
  }
  const response = NextResponse.next({ request: { headers } });
  for (const [name, value] of Object.entries(ALWAYS)) response.headers.set(name, value);
  response.headers.set('Content-Security-Policy', policy);
  return response;
}

export const config = { matcher: ['/', '/:path*'] };
