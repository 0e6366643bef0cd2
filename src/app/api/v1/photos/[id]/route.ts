import { answerFile } from '@/server/http';
import { done } from '@/server/outcome';
import { readPicture } from '@/server/photos';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answerFile('image/jpeg', async (db) => {
    const picture = await readPicture(db, (await params).id);
    return picture.ok ? done({ body: picture.value }) : picture;
  });
