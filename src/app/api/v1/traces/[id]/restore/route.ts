import { answer, now } from '@/server/http';
import { deleteTrace } from '@/server/traces';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (_request: Request, { params }: Place) =>
  answer(async (db) => deleteTrace(db, (await params).id, false, now()));
