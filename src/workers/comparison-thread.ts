import { parentPort, workerData } from 'node:worker_threads';
import { movedBetween } from '@/core/documents/before-after';

const { before, after } = workerData as { [Test in 'before' | 'after']: Parameters<typeof movedBetween>[0] };
parentPort!.postMessage(movedBetween(before, after));
