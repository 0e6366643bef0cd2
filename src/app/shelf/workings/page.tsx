import { WorkingsPage } from '@/ui/shelf/workings-page';

export const metadata = { title: 'Workings' };

export default function Workings() {
  return <WorkingsPage />;
}
