import { type NextRequest, NextResponse } from 'next/server';
import { guard } from './server/guard.ts';
import { admits, keyCookie, neededKey } from './server/key.ts';
import { problemResponse } from './server/problems.ts';
import { securityHeaders } from './server/security-headers.ts';

/** Stands before every page and every call: lets in who may come in, and puts the security headers on all answers. */
export function proxy(request: NextRequest): Response {
  const nonce = btoa(crypto.randomUUID());
  const headers = securityHeaders(nonce);
  const answer = admit(request) ?? passOn(request, nonce, headers['content-security-policy']);
  for (const [name, value] of Object.entries(headers)) answer.headers.set(name, value);
  return answer;
}

/** What a request is answered that isn't passed on: it has no key, or brings it in its address for the first time. */
function admit(request: NextRequest): Response | null {
  try {
    const key = neededKey();
    const given = request.nextUrl.searchParams.get('key');
    if (key !== null && given !== null && request.method === 'GET' && admits(given, key)) {
      const to = new URL(request.nextUrl);
      to.searchParams.delete('key');
      // The name by which the browser came stays.
      to.host = request.headers.get('host') ?? to.host;
      return new Response(null, { status: 303, headers: { location: to.href, 'set-cookie': keyCookie(key) } });
    }
    guard(request);
    return null;
  } catch (error) {
    return problemResponse(error);
  }
}

/** Pages find the policy with its nonce in the request, and mark their own scripts with it. */
function passOn(request: NextRequest, nonce: string, policy: string): Response {
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  return NextResponse.next({ request: { headers } });
}

/**
 * Not for what may be large: a body that passes here is held in memory, and cut off at 10 MB. Its handlers guard themselves and
 * put the headers on (`handle`).
 */
export const config = { matcher: '/((?!api/projects$|api/readings/archive$).*)' };
