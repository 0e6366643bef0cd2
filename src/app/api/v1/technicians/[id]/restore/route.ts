import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { deleteTechnician } from '@/server/technicians';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => deleteTechnician(db, (await params).id, false, await bodyOf(request), now()));
