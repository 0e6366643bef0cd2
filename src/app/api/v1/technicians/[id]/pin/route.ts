import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { changePin } from '@/server/technicians';

interface Place {
  params: Promise<{ id: string }>;
}

export const PUT = (request: Request, { params }: Place) =>
  answer(async (db) => changePin(db, (await params).id, await bodyOf(request), now()));
