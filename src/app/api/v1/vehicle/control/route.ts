import { answer, now } from '@/server/http';
import { bodyOf } from '@/server/request';
import { controlVehicle } from '@/server/vehicle';

export const POST = (request: Request) =>
  answer(async (db) => controlVehicle(db, await bodyOf(request), now()));
