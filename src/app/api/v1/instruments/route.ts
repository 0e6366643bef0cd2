import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { done } from '@/server/outcome';
import { addInstrument, listInstruments } from '@/server/shelf';

export const GET = () => answer(async (db) => done(await listInstruments(db)));

export const POST = (request: Request) =>
  answer(async (db) => addInstrument(db, await bodyOf(request), now()), 201);
