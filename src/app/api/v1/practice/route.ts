import { answer, now } from '@/server/http';
import { startPractice } from '@/server/practice';

export const POST = () => answer(async (db) => startPractice(db, now()), 201);
