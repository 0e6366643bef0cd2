import { answer, now } from '@/server/http';
import { technicianOf } from '@/server/request';
import { startRun } from '@/server/runs';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => startRun(db, (await params).id, now(), { technician: technicianOf(request) }), 201);
