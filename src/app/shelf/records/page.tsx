import { RecordsPage } from '@/ui/shelf/records-page';

export const metadata = { title: 'Records' };

export default function Records() {
  return <RecordsPage />;
}
