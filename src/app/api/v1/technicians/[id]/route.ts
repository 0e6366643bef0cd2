import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { deleteTechnician } from '@/server/technicians';

interface Place {
  params: Promise<{ id: string }>;
}

export const DELETE = (request: Request, { params }: Place) =>
  answer(async (db) => deleteTechnician(db, (await params).id, true, await bodyOf(request), now()));
