import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { recordStep } from '@/server/live-recording';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => recordStep(db, (await params).id, await bodyOf(request), now()));
