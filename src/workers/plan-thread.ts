import { parentPort, workerData } from 'node:worker_threads';
import { workOut, type ToPlan } from '@/core/planning/worked-out';

/** A day is planned within two seconds: the start of this thread and the drawing of its ranges come on top of this, ms. */
const MOST_MS = 1000;
const from = performance.now();

parentPort!.postMessage(workOut(workerData as ToPlan, () => performance.now() - from > MOST_MS));
