import { answer, now } from '@/server/http';
import { deleteTechnician } from '@/server/technicians';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (_request: Request, { params }: Place) =>
  answer(async (db) => deleteTechnician(db, (await params).id, false, now()));
