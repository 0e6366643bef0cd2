import { answerFile } from '@/server/http';
import { paperOf } from '@/server/request';
import { installationPdf } from '@/server/reports';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (request: Request, { params }: Place) =>
  answerFile('application/pdf', async (db) => installationPdf(db, (await params).id, paperOf(request)));
