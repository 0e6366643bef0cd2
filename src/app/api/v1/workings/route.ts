import { answer } from '@/server/http';
import { done } from '@/server/outcome';
import { workingsList } from '@/server/workings';

export const GET = () => answer(() => Promise.resolve(done(workingsList())));
