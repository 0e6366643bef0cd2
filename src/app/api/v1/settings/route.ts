import { answer, now } from '@/server/http';
import { changeOf } from '@/server/request';
import { done } from '@/server/outcome';
import { readSettings, writeSettings } from '@/server/shelf';

export const GET = () => answer(async (db) => done(await readSettings(db)));

export const PUT = (request: Request) =>
  answer(async (db) => {
    const { version, body } = await changeOf(request);
    return writeSettings(db, version, body, now());
  });
