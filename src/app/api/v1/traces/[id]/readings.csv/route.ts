import { answerFile } from '@/server/http';
import { traceCsv } from '@/server/traces';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answerFile('text/csv; charset=utf-8', async (db) => traceCsv(db, (await params).id));
