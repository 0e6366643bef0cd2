import { answerUnproxied } from '@/server/http';
import { analyseLog } from '@/server/trace-import';

/** Works everything out of a log and keeps nothing. */
export const POST = (request: Request) => answerUnproxied(request, (db) => analyseLog(db, request));
