import { answer, bytesOf, now } from '@/server/http';
import { importJob, MOST_FILE_BYTES } from '@/server/job-files';

export const POST = (request: Request) =>
  answer(async (db) => importJob(db, (await bytesOf(request, MOST_FILE_BYTES)).toString('utf8'), now()), 201);
