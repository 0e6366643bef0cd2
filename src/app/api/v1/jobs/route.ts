import { answer, now } from '@/server/http';
import { bodyOf, searchOf } from '@/server/request';
import { jobQuerySchema } from '@/core/records/job-query';
import { searchJobs } from '@/server/job-list';
import { addJob } from '@/server/jobs';
import { done } from '@/server/outcome';

export const GET = (request: Request) =>
  answer(async (db) => {
    const query = jobQuerySchema.parse(Object.fromEntries(searchOf(request)));
    return done(await searchJobs(db, query));
  });

export const POST = (request: Request) => answer(async (db) => addJob(db, await bodyOf(request), now()), 201);
