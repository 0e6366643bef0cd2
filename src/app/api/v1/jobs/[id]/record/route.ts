import { answer } from '@/server/http';
import { readRecord } from '@/server/record';
import { done } from '@/server/outcome';
import { missing } from '@/server/store';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answer(async (db) => {
    const record = await readRecord(db, (await params).id);
    return record ? done(record) : missing('job');
  });
