import { answerFile } from '@/server/http';
import { exportJob } from '@/server/job-files';
import { findJob } from '@/server/jobs';
import { done } from '@/server/outcome';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answerFile('application/json', async (db) => {
    const { id } = await params;
    const file = await exportJob(db, id);
    const job = await findJob(db, id);
    return file.ok ? done({ name: `${job!.body.tag}.hard-pedal.json`, body: file.value }) : file;
  });
