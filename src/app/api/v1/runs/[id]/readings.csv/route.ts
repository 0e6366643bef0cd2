import { answerFile } from '@/server/http';
import { readingsCsv } from '@/server/reports';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answerFile('text/csv; charset=utf-8', async (db) => readingsCsv(db, (await params).id));
