import { answer } from '@/server/http';
import { done } from '@/server/outcome';
import { findCase } from '@/server/practice-cases';
import { missing } from '@/server/store';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answer(async (db) => {
    const found = await findCase(db, (await params).id);
    return found ? done(found) : missing('practice case');
  });
