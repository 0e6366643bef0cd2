import { answer, now } from '@/server/http';
import { changeOf } from '@/server/request';
import { deleteInstrument, replaceInstrument } from '@/server/shelf';

interface Place {
  params: Promise<{ id: string }>;
}

export const PUT = (request: Request, { params }: Place) =>
  answer(async (db) => {
    const { version, body } = await changeOf(request);
    return replaceInstrument(db, (await params).id, version, body, now());
  });

export const DELETE = (_request: Request, { params }: Place) =>
  answer(async (db) => deleteInstrument(db, (await params).id, true, now()));
