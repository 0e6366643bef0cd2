import { database } from '@/server/database';
import { listInstruments } from '@/server/shelf';
import { LoggerPage } from '@/ui/live/logger-page';

export const metadata = { title: 'Bench logger' };
export const dynamic = 'force-dynamic';

export default async function BenchLogger() {
  return <LoggerPage instruments={await listInstruments(await database())} />;
}
