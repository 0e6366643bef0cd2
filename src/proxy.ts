import { NextResponse, type NextRequest } from 'next/server';
import { foreignRequest } from '@/server/loopback';

/** Any web page could otherwise ask a server on this machine: requests from other sites are refused. */
export function proxy(request: NextRequest) {
  const why = foreignRequest(request.headers, !request.nextUrl.pathname.startsWith('/api/'));
  if (!why) return NextResponse.next();
  const body = JSON.stringify({ type: 'about:blank', status: 403, title: why, code: 'foreign' });
  return new NextResponse(body, { status: 403, headers: { 'content-type': 'application/problem+json' } });
}

/** A log comes in as it is read, which a proxy would hold whole: those two routes look at the request themselves. */
export const config = { matcher: '/((?!api/v1/traces/(?:import|analyse)$).*)' };
