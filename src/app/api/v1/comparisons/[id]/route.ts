import { answer, now } from '@/server/http';
import { changeOf } from '@/server/request';
import { deleteComparison, replaceComparison } from '@/server/comparisons';

interface Place {
  params: Promise<{ id: string }>;
}

export const PUT = (request: Request, { params }: Place) =>
  answer(async (db) => {
    const { version, body } = await changeOf(request);
    return replaceComparison(db, (await params).id, version, body, now());
  });

export const DELETE = (_request: Request, { params }: Place) =>
  answer(async (db) => deleteComparison(db, (await params).id, true, now()));
