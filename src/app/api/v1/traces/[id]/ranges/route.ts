import { answer, now } from '@/server/http';
import { changeOf } from '@/server/request';
import { workOutRange } from '@/server/traces';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => {
    const { version, body } = await changeOf(request);
    return workOutRange(db, (await params).id, version, body, now());
  });
