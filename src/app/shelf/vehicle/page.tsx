import { database } from '@/server/database';
import { identifierMap } from '@/server/vehicle';
import { VehiclePage } from '@/ui/live/vehicle-page';

export const metadata = { title: 'Vehicle interface' };
export const dynamic = 'force-dynamic';

export default async function VehicleInterface() {
  return <VehiclePage stored={await identifierMap(await database())} />;
}
