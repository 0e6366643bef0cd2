import { answer } from '@/server/http';
import { analysisOf } from '@/server/traces';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answer(async (db) => analysisOf(db, (await params).id));
