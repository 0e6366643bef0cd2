import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { readCodes } from '@/server/vehicle-codes';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => readCodes(db, (await params).id, await bodyOf(request), now()), 201);
