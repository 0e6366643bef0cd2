import { traceQuerySchema } from '@/core/records/trace-query';
import { answer } from '@/server/http';
import { searchOf } from '@/server/request';
import { done } from '@/server/outcome';
import { searchTraces } from '@/server/trace-list';

export const GET = (request: Request) =>
  answer(async (db) => {
    const query = traceQuerySchema.parse(Object.fromEntries(searchOf(request)));
    return done(await searchTraces(db, query));
  });
