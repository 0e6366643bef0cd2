import { answer } from '@/server/http';
import { done } from '@/server/outcome';

export const dynamic = 'force-dynamic';

export const GET = () =>
  answer(async (db) => {
    await db.raw('select 1');
    return done({ status: 'ok' });
  });
