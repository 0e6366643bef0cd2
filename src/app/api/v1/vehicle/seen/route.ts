import { answer } from '@/server/http';
import { seenControl } from '@/server/vehicle';

export const POST = () => answer(seenControl);
