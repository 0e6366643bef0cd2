import path from 'node:path';
import { Worker, type TransferListItem } from 'node:worker_threads';

/** Threads of the server, made by the build. */
export type ThreadName =
  'diagnosis-thread' | 'debrief-thread' | 'comparison-thread' | 'job-file-thread' | 'plan-thread';

/** Memory that a thread may take for objects and texts, MB. */
const MOST_MB = 400;

/** A thread needed more memory than there is for it. */
export class TooMuch extends Error {}

/**
 * Has one thing worked out off the main thread.
 *
 * @param asked what the thread is given
 * @param given of that, what is handed over and not copied: it is empty here afterwards
 * @returns what it answers; null where the sender went away meanwhile
 * @throws TooMuch where it takes more memory than that, and what the thread throws
 */
export async function inThread<T>(
  name: ThreadName,
  asked: unknown,
  { signal, given }: { readonly signal?: AbortSignal; readonly given?: readonly TransferListItem[] } = {},
): Promise<T | null> {
  if (signal?.aborted) return null;
  const file = path.join(/*turbopackIgnore: true*/ process.cwd(), '.workers', `${name}.cjs`);
  const worker = new Worker(/*turbopackIgnore: true*/ file, {
    workerData: asked,
    transferList: [...(given ?? [])],
    resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
  });
  return new Promise<T | null>((resolve, reject) => {
    worker.once('message', resolve);
    worker.once('error', (error: NodeJS.ErrnoException) =>
      reject(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new TooMuch() : error),
    );
    signal?.addEventListener('abort', () => resolve(null), { once: true });
  }).finally(() => worker.terminate());
}
