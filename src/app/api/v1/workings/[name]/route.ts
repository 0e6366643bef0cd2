import { answer } from '@/server/http';
import { bodyOf } from '@/server/request';
import { callWorking } from '@/server/workings';

interface Place {
  params: Promise<{ name: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async () => callWorking((await params).name, await bodyOf(request)));
