import { askDiagnosis } from '@/server/diagnosis';
import { answer, bodyOf } from '@/server/http';

export const POST = (request: Request) =>
  answer(async () => askDiagnosis(await bodyOf(request), request.signal));
