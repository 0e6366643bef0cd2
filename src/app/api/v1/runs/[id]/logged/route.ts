import { answer } from '@/server/http';
import { done } from '@/server/outcome';
import { loggedIn } from '@/server/traces';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answer(async (db) => done(await loggedIn(db, (await params).id)));
