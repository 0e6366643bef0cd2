import { createHash } from 'node:crypto';
import { parentPort, workerData } from 'node:worker_threads';
import { readJobFile } from '@/core/records/job-file';

const sha256 = (data: string | Buffer) => createHash('sha256').update(data).digest('hex');
const base64 = (text: string) => sha256(Buffer.from(text, 'base64'));

const text = Buffer.from((workerData as Uint8Array).buffer).toString('utf8');

parentPort!.postMessage(readJobFile(text, { text: sha256, base64 }));
