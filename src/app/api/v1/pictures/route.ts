import { answerFileSent } from '@/server/http';
import { addPicture, MOST_PHOTO_BYTES } from '@/server/photos';

/** The picture is the body; the answer is its seal. */
export const POST = (request: Request) =>
  answerFileSent(request, { most: MOST_PHOTO_BYTES, room: 'pictures' }, addPicture);
