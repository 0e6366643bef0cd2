import { answer, now } from '@/server/http';
import { endCase } from '@/server/practice-cases';
import { bodyOf } from '@/server/request';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => endCase(db, (await params).id, await bodyOf(request), now(), request.signal));
