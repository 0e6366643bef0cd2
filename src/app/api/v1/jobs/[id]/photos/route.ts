import { answerFileSent, now } from '@/server/http';
import { addPhoto, MOST_PHOTO_BYTES } from '@/server/photos';
import { searchOf } from '@/server/request';

interface Place {
  params: Promise<{ id: string }>;
}

/** The picture is the body; what it shows is in the query. */
export const POST = (request: Request, { params }: Place) =>
  answerFileSent(request, { most: MOST_PHOTO_BYTES, room: 'pictures' }, async (db, bytes) => {
    const asked = searchOf(request);
    const about = {
      id: asked.get('id'),
      point: asked.get('point') || null,
      caption: asked.get('caption') ?? '',
    };
    return addPhoto(db, (await params).id, about, bytes, now());
  });
