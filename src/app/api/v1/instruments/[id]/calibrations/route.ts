import { answer, now } from '@/server/http';
import { changeOf } from '@/server/request';
import { calibrate } from '@/server/shelf';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => {
    const { version, body } = await changeOf(request);
    return calibrate(db, (await params).id, version, body, now());
  }, 201);
