import { answer, now } from '@/server/http';
import { changeOf } from '@/server/request';
import { done } from '@/server/outcome';
import { missing } from '@/server/store';
import { changeTrace, deleteTrace, findTrace } from '@/server/traces';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answer(async (db) => {
    const trace = await findTrace(db, (await params).id);
    return trace ? done(trace) : missing('trace');
  });

export const PUT = (request: Request, { params }: Place) =>
  answer(async (db) => {
    const { version, body } = await changeOf(request);
    return changeTrace(db, (await params).id, version, body, now());
  });

export const DELETE = (_request: Request, { params }: Place) =>
  answer(async (db) => deleteTrace(db, (await params).id, true, now()));
