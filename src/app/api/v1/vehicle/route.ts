import { database } from '@/server/database';
import { vehicleStream } from '@/server/vehicle';

export const dynamic = 'force-dynamic';

/** What the vehicle's interface tells, as it comes: server-sent events. */
export const GET = async (request: Request) =>
  new Response(await vehicleStream(await database(), new URL(request.url).searchParams, request.signal), {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
