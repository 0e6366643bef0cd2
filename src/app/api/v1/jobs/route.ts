import { answer, bodyOf, now } from '@/server/http';
import { jobQuerySchema } from '@/core/records/job-query';
import { searchJobs } from '@/server/job-list';
import { addJob } from '@/server/jobs';
import { done } from '@/server/outcome';

export const GET = (request: Request) =>
  answer(async (db) => {
    const query = jobQuerySchema.parse(Object.fromEntries(new URL(request.url).searchParams));
    return done(await searchJobs(db, query));
  });

export const POST = (request: Request) => answer(async (db) => addJob(db, await bodyOf(request), now()), 201);
