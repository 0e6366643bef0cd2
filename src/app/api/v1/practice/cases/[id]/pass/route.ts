import { answer, now } from '@/server/http';
import { passWait } from '@/server/practice-cases';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (_request: Request, { params }: Place) =>
  answer(async (db) => passWait(db, (await params).id, now()));
