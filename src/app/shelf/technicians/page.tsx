import { database } from '@/server/database';
import { listTechnicians } from '@/server/technicians';
import { TechniciansPage } from '@/ui/shelf/technicians-page';

export const metadata = { title: 'Technicians' };

export default async function Technicians() {
  return <TechniciansPage technicians={await listTechnicians(await database())} />;
}
