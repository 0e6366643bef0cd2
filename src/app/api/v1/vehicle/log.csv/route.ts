import { answerFile } from '@/server/http';
import { searchOf } from '@/server/request';
import { heardCsv } from '@/server/vehicle';

/** What was heard from the vehicle for a run. */
export const GET = (request: Request) =>
  answerFile('text/csv; charset=utf-8', async (db) => heardCsv(db, searchOf(request).get('run') ?? ''));
