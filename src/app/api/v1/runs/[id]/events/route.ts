import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { appendEvent } from '@/server/runs';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => appendEvent(db, (await params).id, await bodyOf(request), now()));
