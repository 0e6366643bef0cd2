import { benchNow } from '@/server/bench';
import { answer } from '@/server/http';
import { done } from '@/server/outcome';

export const dynamic = 'force-dynamic';

export const GET = () =>
  answer(async (db) => done((await benchNow(db)).flatMap(({ wait }) => (wait ? [wait] : []))));
