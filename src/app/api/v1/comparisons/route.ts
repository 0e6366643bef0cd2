import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { addComparison, listComparisons } from '@/server/comparisons';
import { done } from '@/server/outcome';

export const GET = () => answer(async (db) => done(await listComparisons(db)));

export const POST = (request: Request) =>
  answer(async (db) => addComparison(db, await bodyOf(request), now()), 201);
