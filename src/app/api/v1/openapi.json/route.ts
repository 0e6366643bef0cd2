import { answer } from '@/server/http';
import { openApi } from '@/server/openapi';
import { done } from '@/server/outcome';

export const GET = () => answer(() => Promise.resolve(done(openApi())));
