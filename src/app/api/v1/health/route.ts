import { damage } from '@/server/database';
import { searchOf } from '@/server/request';
import { answer } from '@/server/http';
import { done } from '@/server/outcome';
import { StoreTrouble } from '@/server/trouble';

export const dynamic = 'force-dynamic';

/** Whether the application answers; with `?whole` whether its database can be read through as well. */
export const GET = (request: Request) =>
  answer(async (db) => {
    await db.raw('select 1');
    const why = searchOf(request).has('whole') ? await damage(db) : null;
    if (why) throw new StoreTrouble(why);
    return done({ status: 'ok' });
  });
