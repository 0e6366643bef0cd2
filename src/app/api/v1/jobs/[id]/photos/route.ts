import { answer, bytesOf, now } from '@/server/http';
import { addPhoto, MOST_PHOTO_BYTES } from '@/server/photos';

interface Place {
  params: Promise<{ id: string }>;
}

/** The picture is the body; what it shows is in the query. */
export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => {
    const asked = new URL(request.url).searchParams;
    const about = {
      id: asked.get('id'),
      point: asked.get('point') || null,
      caption: asked.get('caption') ?? '',
    };
    const bytes = await bytesOf(request, MOST_PHOTO_BYTES);
    return addPhoto(db, (await params).id, about, bytes, now());
  }, 201);
