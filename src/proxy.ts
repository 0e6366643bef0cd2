import { NextResponse, type NextRequest } from 'next/server';
import { contentPolicy } from '@/server/content-policy';
import { foreignRequest } from '@/server/loopback';

const POLICY = 'Content-Security-Policy';

/** Any web page could otherwise ask a server on this machine: requests from other sites are refused. Pages say what they may run. */
export function proxy(request: NextRequest) {
  const why = foreignRequest(request.headers, !request.nextUrl.pathname.startsWith('/api/'));
  if (why) {
    const body = JSON.stringify({ type: 'about:blank', status: 403, title: why, code: 'foreign' });
    return new NextResponse(body, { status: 403, headers: { 'content-type': 'application/problem+json' } });
  }
  const nonce = crypto.randomUUID();
  const policy = contentPolicy(nonce, process.env.NODE_ENV === 'development');
  // The page is made with the nonce that its request names.
  const headers = new Headers(request.headers);
  headers.set(POLICY, policy);
  headers.set('x-nonce', nonce);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set(POLICY, policy);
  return response;
}

/** A log comes in as it is read, which a proxy would hold whole: those two routes look at the request themselves. */
export const config = { matcher: '/((?!api/v1/traces/(?:import|analyse)$).*)' };
