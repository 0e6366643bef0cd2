import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { startPractice } from '@/server/practice';

export const POST = (request: Request) =>
  answer(async (db) => startPractice(db, await bodyOf(request), now()), 201);
