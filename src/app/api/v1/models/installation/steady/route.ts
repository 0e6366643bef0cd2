import { answer } from '@/server/http';
import { bodyOf } from '@/server/request';
import { askInstallation } from '@/server/workings';

export const POST = (request: Request) => answer(async () => askInstallation(await bodyOf(request)));
