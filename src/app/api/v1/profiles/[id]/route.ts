import { answer, now } from '@/server/http';
import { changeOf } from '@/server/request';
import { deleteProfile, replaceProfile } from '@/server/shelf';

interface Place {
  params: Promise<{ id: string }>;
}

export const PUT = (request: Request, { params }: Place) =>
  answer(async (db) => {
    const { version, body } = await changeOf(request);
    return replaceProfile(db, (await params).id, version, body, now());
  });

export const DELETE = (_request: Request, { params }: Place) =>
  answer(async (db) => deleteProfile(db, (await params).id, true, now()));
