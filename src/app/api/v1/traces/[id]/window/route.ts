import { answerFile } from '@/server/http';
import { searchOf } from '@/server/request';
import { windowOf } from '@/server/traces';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (request: Request, { params }: Place) =>
  answerFile('application/octet-stream', async (db) => {
    const asked = searchOf(request);
    const [from_s, to_s, buckets] = ['from', 'to', 'buckets'].map((name) => Number(asked.get(name) ?? NaN));
    return windowOf(db, (await params).id, { from_s: from_s!, to_s: to_s!, buckets: buckets! });
  });
