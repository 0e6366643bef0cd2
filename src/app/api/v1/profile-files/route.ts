import { answerFileSent, now } from '@/server/http';
import { importProfile, MOST_PROFILE_BYTES } from '@/server/profile-files';

export const POST = (request: Request) =>
  answerFileSent(request, { most: MOST_PROFILE_BYTES, room: 'files' }, (db, bytes) =>
    importProfile(db, bytes.toString('utf8'), now()),
  );
