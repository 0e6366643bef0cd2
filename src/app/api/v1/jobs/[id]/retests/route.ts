import { answer, now } from '@/server/http';
import { technicianOf } from '@/server/request';
import { startRetest } from '@/server/runs';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => startRetest(db, (await params).id, now(), technicianOf(request)), 201);
