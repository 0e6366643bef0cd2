import { answer, bodyOf, now } from '@/server/http';
import { addJob, listJobs } from '@/server/jobs';
import { done } from '@/server/outcome';

export const GET = () => answer(async (db) => done(await listJobs(db)));

export const POST = (request: Request) => answer(async (db) => addJob(db, await bodyOf(request), now()), 201);
