import { answer, bodyOf } from '@/server/http';
import { callWorking } from '@/server/workings';

interface Place {
  params: Promise<{ name: string }>;
}

export const POST = (request: Request, { params }: Place) =>
  answer(async () => callWorking((await params).name, await bodyOf(request)));
