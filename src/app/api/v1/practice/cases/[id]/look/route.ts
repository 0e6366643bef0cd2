import { answer } from '@/server/http';
import { lookInCase } from '@/server/practice-cases';
import { bodyOf } from '@/server/request';

interface Place {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async (db) => lookInCase(db, (await params).id, await bodyOf(request)));
