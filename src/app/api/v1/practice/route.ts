import { answer, bodyOf, now } from '@/server/http';
import { startPractice } from '@/server/practice';

export const POST = (request: Request) =>
  answer(async (db) => startPractice(db, await bodyOf(request), now()), 201);
