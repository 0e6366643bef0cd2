import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { done } from '@/server/outcome';
import { addTechnician, listTechnicians } from '@/server/technicians';

export const GET = () => answer(async (db) => done(await listTechnicians(db)));

export const POST = (request: Request) =>
  answer(async (db) => addTechnician(db, await bodyOf(request), now()), 201);
