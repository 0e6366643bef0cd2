import { Nothing } from '@/ui/page';

export default function Loading() {
  return <Nothing>One moment…</Nothing>;
}
