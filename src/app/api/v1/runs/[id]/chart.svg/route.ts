import { answerFile } from '@/server/http';
import { chartFile } from '@/server/reports';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answerFile('image/svg+xml', async (db) => chartFile(db, (await params).id, 'svg'));
