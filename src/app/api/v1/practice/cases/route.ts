import { answer, now } from '@/server/http';
import { done } from '@/server/outcome';
import { beginCase, listCases } from '@/server/practice-cases';
import { bodyOf } from '@/server/request';

export const dynamic = 'force-dynamic';

export const GET = () => answer(async (db) => done(await listCases(db)));

export const POST = (request: Request) =>
  answer(async (db) => beginCase(db, await bodyOf(request), now()), 201);
