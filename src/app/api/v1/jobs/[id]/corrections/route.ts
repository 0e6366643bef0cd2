import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { correctJob } from '@/server/technicians';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => correctJob(db, (await params).id, await bodyOf(request), now()), 201);
