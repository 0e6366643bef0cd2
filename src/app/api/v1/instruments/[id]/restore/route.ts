import { answer, now } from '@/server/http';
import { deleteInstrument } from '@/server/shelf';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (_request: Request, { params }: Place) =>
  answer(async (db) => deleteInstrument(db, (await params).id, false, now()));
