import { NextResponse, type NextRequest } from 'next/server';
import { cookieFor, isOurHost, isTrusted, pageHeaders } from '@/server/door';

/** The door of the pages and of what they are made of. Routes have theirs in `server/http`, for bodies do not pass here. */
export function proxy(request: NextRequest): NextResponse {
  if (!isOurHost(request.headers))
    return new NextResponse('This server does not answer to that name.', {
      status: 403,
      headers: { 'content-type': 'text/plain; charset=utf-8' },
    });
  const { searchParams, pathname, protocol } = request.nextUrl;
  const cookie = cookieFor(searchParams.get('token'), protocol === 'https:');
  // The token does not stay in the address.
  if (cookie) return new NextResponse(null, { status: 303, headers: { location: pathname, 'set-cookie': cookie } });
  if (!isTrusted(request.headers))
    return new NextResponse('This server wants its token: open it once with ?token= in the address.', {
      status: 401,
      headers: { 'content-type': 'text/plain; charset=utf-8' },
    });
  const headers = new Headers(request.headers);
  const guards = pageHeaders(crypto.randomUUID(), process.env.NODE_ENV !== 'production');
  // The page's own scripts take the nonce from here.
  headers.set('content-security-policy', guards['content-security-policy']);
  const response = NextResponse.next({ request: { headers } });
  for (const [name, value] of Object.entries(guards)) response.headers.set(name, value);
  return response;
}

export const config = { matcher: '/((?!api/).*)' };
