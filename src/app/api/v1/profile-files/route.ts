import { answer, bytesOf, now } from '@/server/http';
import { importProfile, MOST_PROFILE_BYTES } from '@/server/profile-files';

export const POST = (request: Request) =>
  answer(
    async (db) => importProfile(db, (await bytesOf(request, MOST_PROFILE_BYTES)).toString('utf8'), now()),
    201,
  );
