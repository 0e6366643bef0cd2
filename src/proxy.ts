import { NextResponse, type NextRequest } from 'next/server';
import { contentPolicy } from '@/server/content-policy';
import { foreignRequest } from '@/server/loopback';
import { isReadable, problem, unreadable } from '@/server/problem';

const POLICY = 'Content-Security-Policy';

/** Any web page could otherwise ask a server on this machine: requests from other sites are refused. Pages say what they may run. */
export function proxy(request: NextRequest) {
  const why = foreignRequest(request.headers, !request.nextUrl.pathname.startsWith('/api/'));
  if (why) return problem(403, { title: why, code: 'foreign' });
  if (!isReadable(request.url)) return unreadable();
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

/** A proxy would hold a file whole before anything of it is looked at: those routes look at the request themselves (`answerUpload`). */
export const config = {
  matcher:
    '/((?!api/v1/(?:traces/(?:import|analyse)|job-files|profile-files|pictures|jobs/[^/]+/photos)$).*)',
};
