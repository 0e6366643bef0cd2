import { database } from '@/server/database';
import { liveStream } from '@/server/live';

export const dynamic = 'force-dynamic';

/** What the bench logger shows, as it comes: server-sent events. */
export const GET = async (request: Request) =>
  new Response(await liveStream(await database(), request.signal), {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
