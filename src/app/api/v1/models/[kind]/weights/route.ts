import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { changeWeight, weightsOf } from '@/server/weights';

interface Place {
  params: Promise<{ kind: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answer(async (db) => weightsOf(db, (await params).kind));

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => changeWeight(db, (await params).kind, await bodyOf(request), now()), 201);
