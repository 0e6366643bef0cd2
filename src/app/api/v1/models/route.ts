import { modelList } from '@/core/workings/open-models';
import { answer } from '@/server/http';
import { done } from '@/server/outcome';

export const GET = () => answer(() => Promise.resolve(done(modelList())));
