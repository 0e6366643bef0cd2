import { answerFileSent, now } from '@/server/http';
import { importJob, MOST_FILE_BYTES } from '@/server/job-files';

export const POST = (request: Request) =>
  answerFileSent(request, { most: MOST_FILE_BYTES, room: 'files' }, (db, bytes) =>
    importJob(db, bytes, now()),
  );
