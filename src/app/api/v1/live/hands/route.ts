import { answer } from '@/server/http';
import { bodyOf } from '@/server/request';
import { workBench } from '@/server/simulated-bench';

export const POST = (request: Request) => answer(async (db) => workBench(db, await bodyOf(request)));
