import { database } from '@/server/database';
import { listCases } from '@/server/practice-cases';
import { PracticePage } from '@/ui/practice/practice-page';

export const metadata = { title: 'Practice' };
export const dynamic = 'force-dynamic';

export default async function Practice() {
  return <PracticePage cases={await listCases(await database())} />;
}
