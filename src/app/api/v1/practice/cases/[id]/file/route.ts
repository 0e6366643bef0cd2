import { answerFile } from '@/server/http';
import { caseFile } from '@/server/practice-cases';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answerFile('application/json', async (db) => caseFile(db, (await params).id));
