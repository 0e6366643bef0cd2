import { answer, now } from '@/server/http';
import { putCaseOnBench } from '@/server/practice-cases';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (_request: Request, { params }: Place) =>
  answer(async (db) => putCaseOnBench(db, (await params).id, now()));
