import { answer } from '@/server/http';
import { bodyOf } from '@/server/request';
import { askModel } from '@/server/workings';

interface Place {
  params: Promise<{ kind: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async () => askModel((await params).kind, await bodyOf(request)));
