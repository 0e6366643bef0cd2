import { answer, bodyOf } from '@/server/http';
import { askInstallation } from '@/server/workings';

export const POST = (request: Request) => answer(async () => askInstallation(await bodyOf(request)));
