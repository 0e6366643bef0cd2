import { answer } from '@/server/http';
import { done } from '@/server/outcome';
import { listTraces } from '@/server/traces';

export const GET = (request: Request) =>
  answer(async (db) => done(await listTraces(db, new URL(request.url).searchParams.get('run') ?? undefined)));
