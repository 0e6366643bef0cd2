import { database } from '@/server/database';
import { listRemoved } from '@/server/removed';
import { RemovedPage } from '@/ui/shelf/removed-page';

export const metadata = { title: 'Off the shelf' };

export default async function Removed() {
  return <RemovedPage things={await listRemoved(await database())} />;
}
