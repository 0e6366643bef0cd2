import { answer, now } from '@/server/http';
import { startSettling } from '@/server/runs';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (_request: Request, { params }: Place) =>
  answer(async (db) => startSettling(db, (await params).id, now()), 201);
