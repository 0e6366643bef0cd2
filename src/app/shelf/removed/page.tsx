import { database } from '@/server/database';
import { listRemoved } from '@/server/removed';
import { listTechnicians } from '@/server/technicians';
import { RemovedPage } from '@/ui/shelf/removed-page';

export const metadata = { title: 'Off the shelf' };

export default async function Removed() {
  const db = await database();
  return <RemovedPage things={await listRemoved(db)} technicians={await listTechnicians(db)} />;
}
