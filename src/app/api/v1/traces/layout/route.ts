import { answer } from '@/server/http';
import { bodyOf } from '@/server/request';
import { rememberedLayout } from '@/server/traces';

/** The layout confirmed last time for a log with these columns. */
export const POST = (request: Request) => answer(async (db) => rememberedLayout(db, await bodyOf(request)));
