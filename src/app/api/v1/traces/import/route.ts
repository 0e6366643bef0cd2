import { answerUpload } from '@/server/http';
import { MOST_LOG_BYTES } from '@/server/trace-job';
import { importLog } from '@/server/trace-import';

export const POST = (request: Request) =>
  answerUpload(request, { most: MOST_LOG_BYTES, room: 'files' }, (db) => importLog(db, request), 201);
