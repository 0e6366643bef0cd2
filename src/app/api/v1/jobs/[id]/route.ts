import { answer, now } from '@/server/http';
import { changeOf } from '@/server/request';
import { findJob, replaceJob } from '@/server/jobs';
import { done, refused } from '@/server/outcome';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answer(async (db) => {
    const job = await findJob(db, (await params).id);
    return job ? done(job) : refused({ code: 'not-found', message: 'There is no such job.' });
  });

export const PUT = (request: Request, { params }: Place) =>
  answer(async (db) => {
    const { version, body } = await changeOf(request);
    return replaceJob(db, (await params).id, version, body, now());
  });
