import { answer } from '@/server/http';
import { done } from '@/server/outcome';
import { verify } from '@/server/verify';

export const POST = () => answer(async (db) => done(await verify(db)));
