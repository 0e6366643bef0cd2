import { answerFile } from '@/server/http';
import { exportProfile } from '@/server/profile-files';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answerFile('application/json', async (db) => exportProfile(db, (await params).id));
