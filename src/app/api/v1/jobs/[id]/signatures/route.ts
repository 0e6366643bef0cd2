import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { signJob } from '@/server/technicians';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => signJob(db, (await params).id, await bodyOf(request), now()), 201);
