import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { done } from '@/server/outcome';
import { addProfile, listProfiles } from '@/server/shelf';

export const GET = () => answer(async (db) => done(await listProfiles(db)));

export const POST = (request: Request) =>
  answer(async (db) => addProfile(db, await bodyOf(request), now()), 201);
