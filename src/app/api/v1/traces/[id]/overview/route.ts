import { answerFile } from '@/server/http';
import { overviewOf } from '@/server/traces';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answerFile('application/octet-stream', async (db) => overviewOf(db, (await params).id));
