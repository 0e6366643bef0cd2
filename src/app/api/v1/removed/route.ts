import { answer } from '@/server/http';
import { done } from '@/server/outcome';
import { listRemoved } from '@/server/removed';

export const GET = () => answer(async (db) => done(await listRemoved(db)));
