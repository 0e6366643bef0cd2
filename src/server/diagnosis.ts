import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Replied, Reply } from '@/core/diagnosis/question';
import { done, invalid, refused, type Outcome } from './outcome';

/** The worker's file, made by the build. */
const workerFile = () =>
  path.join(/*turbopackIgnore: true*/ process.cwd(), '.workers', 'diagnosis-thread.cjs');

/** What it probably is and what to test next, worked out off the main thread. Ends where the sender goes away. */
export async function askDiagnosis(asked: unknown, signal?: AbortSignal): Promise<Outcome<Reply>> {
  const replied = await inThread(asked, signal);
  if (!replied) return refused({ code: 'refused', message: 'It was stopped before it was worked out.' });
  return replied.ok ? done(replied.reply) : invalid(replied.issues);
}

async function inThread(asked: unknown, signal?: AbortSignal): Promise<Replied | null> {
  if (signal?.aborted) return null;
  const worker = new Worker(/*turbopackIgnore: true*/ workerFile(), { workerData: asked });
  return new Promise<Replied | null>((resolve, reject) => {
    worker.once('message', resolve);
    worker.once('error', reject);
    signal?.addEventListener('abort', () => resolve(null), { once: true });
  }).finally(() => worker.terminate());
}
