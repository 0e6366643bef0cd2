import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { addNote } from '@/server/notes';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => addNote(db, (await params).id, await bodyOf(request), now()), 201);
