import { answer, now } from '@/server/http';
import { deleteComparison } from '@/server/comparisons';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (_request: Request, { params }: Place) =>
  answer(async (db) => deleteComparison(db, (await params).id, false, now()));
