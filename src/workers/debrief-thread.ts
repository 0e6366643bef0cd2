import { parentPort, workerData } from 'node:worker_threads';
import { debriefOf, type ToDebrief } from '@/core/practice/debrief';

parentPort!.postMessage(debriefOf(workerData as ToDebrief));
