import { listComparisons } from '@/server/comparisons';
import { database } from '@/server/database';
import { ComparisonsPage } from '@/ui/fitting/comparisons-page';

export const metadata = { title: 'Fitting' };

export default async function Comparisons() {
  return <ComparisonsPage comparisons={await listComparisons(await database())} />;
}
