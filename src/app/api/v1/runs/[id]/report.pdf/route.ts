import { answerFile } from '@/server/http';
import { paperOf } from '@/server/request';
import { reportPdf } from '@/server/reports';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (request: Request, { params }: Place) =>
  answerFile('application/pdf', async (db) => reportPdf(db, (await params).id, paperOf(request)));
