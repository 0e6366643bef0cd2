import { answer } from '@/server/http';
import { done, refused } from '@/server/outcome';
import { findRun } from '@/server/runs';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answer(async (db) => {
    const run = await findRun(db, (await params).id);
    return run ? done(run) : refused({ code: 'not-found', message: 'There is no such run.' });
  });
