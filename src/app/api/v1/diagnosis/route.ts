import { askDiagnosis } from '@/server/diagnosis';
import { answer } from '@/server/http';
import { bodyOf } from '@/server/request';

export const POST = (request: Request) =>
  answer(async () => askDiagnosis(await bodyOf(request), request.signal));
