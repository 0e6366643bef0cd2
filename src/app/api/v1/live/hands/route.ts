import { answer, bodyOf } from '@/server/http';
import { workBench } from '@/server/simulated-bench';

export const POST = (request: Request) => answer(async (db) => workBench(db, await bodyOf(request)));
