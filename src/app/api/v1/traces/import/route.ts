import { answerUnproxied } from '@/server/http';
import { importLog } from '@/server/trace-import';

/** The log is the body; how it is to be read, and what it is of, is in the query. */
export const POST = (request: Request) => answerUnproxied(request, (db) => importLog(db, request), 201);
