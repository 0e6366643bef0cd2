import { answerFile } from '@/server/http';
import { heardCsv } from '@/server/vehicle';

/** What was heard from the vehicle for a run. */
export const GET = (request: Request) =>
  answerFile('text/csv; charset=utf-8', async (db) =>
    heardCsv(db, new URL(request.url).searchParams.get('run') ?? ''),
  );
