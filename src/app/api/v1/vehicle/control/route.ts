import { answer, bodyOf, now } from '@/server/http';
import { controlVehicle } from '@/server/vehicle';

export const POST = (request: Request) =>
  answer(async (db) => controlVehicle(db, await bodyOf(request), now()));
