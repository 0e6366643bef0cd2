import { answer, now } from '@/server/http';
import { changeOf } from '@/server/request';
import { done } from '@/server/outcome';
import { identifierMap, writeMap } from '@/server/vehicle';

export const GET = () => answer(async (db) => done(await identifierMap(db)));

export const PUT = (request: Request) =>
  answer(async (db) => {
    const { version, body } = await changeOf(request);
    return writeMap(db, version, body, now());
  });
