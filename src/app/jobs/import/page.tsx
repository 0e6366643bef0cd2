import { ImportPage } from '@/ui/job/import-page';

export const metadata = { title: 'Read a job file' };

export default function Import() {
  return <ImportPage />;
}
