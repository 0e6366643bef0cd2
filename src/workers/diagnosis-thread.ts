import { parentPort, workerData } from 'node:worker_threads';
import { answerDiagnosis } from '@/core/workings/open-diagnosis';

parentPort!.postMessage(answerDiagnosis(workerData));
