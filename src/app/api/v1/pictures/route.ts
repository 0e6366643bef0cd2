import { answer, bytesOf } from '@/server/http';
import { addPicture, MOST_PHOTO_BYTES } from '@/server/photos';

/** The picture is the body; the answer is its seal. */
export const POST = (request: Request) =>
  answer(async (db) => addPicture(db, await bytesOf(request, MOST_PHOTO_BYTES)), 201);
