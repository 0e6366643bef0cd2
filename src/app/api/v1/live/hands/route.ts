import { answer, bodyOf } from '@/server/http';
import { workBench } from '@/server/live';

export const POST = (request: Request) => answer(async (db) => workBench(db, await bodyOf(request)));
