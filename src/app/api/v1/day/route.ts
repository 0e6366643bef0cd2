import { changeDay, dayPlan } from '@/server/day';
import { answer, localTime } from '@/server/http';
import { bodyOf } from '@/server/request';

export const dynamic = 'force-dynamic';

export const GET = (request: Request) => answer((db) => dayPlan(db, localTime(), request.signal));

export const PUT = (request: Request) =>
  answer(async (db) => changeDay(db, await bodyOf(request), localTime()));
