import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { piecesOf } from './request';
import type { About } from '@/core/signals/analysis';
import type { LogLayout } from '@/core/signals/csv/layout';
import type { Trace } from '@/core/signals/trace';
import type { TraceOutcome, WorkedOut } from '@/workers/trace-product';
import type { FromTraceWorker, ToTraceWorker } from '@/workers/trace-worker';

/** How a log is to be read. */
export interface ReadingOf {
  readonly layout: LogLayout | null;
  readonly about: About;
  /** Length of the file, 0 where it is not known. */
  readonly bytes: number;
}

/** A log of more than this is refused before it is read. */
export const MOST_LOG_BYTES = 2_000_000_000;
const TOO_LARGE = 'The file is larger than 2 GB. Cut it into parts; nothing was taken in.';

/** The worker's file, made by the build. */
const workerFile = () => path.join(/*turbopackIgnore: true*/ process.cwd(), '.workers', 'trace-worker.cjs');

/**
 * Reads and analyses a log off the main thread, a piece at a time: the next piece is fetched when the one before has
 * been taken in, so no more of the file than that is ever held. Ends at once where the sender goes away.
 */
export async function readLog(
  body: ReadableStream<Uint8Array> | null,
  reading: ReadingOf,
  signal?: AbortSignal,
): Promise<TraceOutcome> {
  return withWorker(async (talk) => {
    await talk({ type: 'begin', ...reading });
    let length = 0;
    for await (const piece of piecesOf(body)) {
      if (signal?.aborted) return { ok: false, why: 'Reading was stopped. Nothing was taken in.' };
      length += piece.length;
      if (length > MOST_LOG_BYTES) return { ok: false, why: TOO_LARGE };
      await talk({ type: 'piece', bytes: piece });
    }
    const last = await talk({ type: 'end' });
    if (last.type !== 'done') throw new Error(`trace worker: ${last.type} instead of done`);
    return last.outcome;
  });
}

/** Works everything out of readings that are in hand, off the main thread. */
export const workOut = (trace: Trace, about: About): Promise<WorkedOut> =>
  withWorker(async (talk) => {
    const last = await talk({ type: 'trace', trace, about });
    if (last.type !== 'worked-out') throw new Error(`trace worker: ${last.type} instead of worked-out`);
    return last.product;
  });

type Talk = (message: ToTraceWorker) => Promise<FromTraceWorker>;

async function withWorker<T>(work: (talk: Talk) => Promise<T>): Promise<T> {
  const worker = new Worker(/*turbopackIgnore: true*/ workerFile());
  try {
    return await work(conversation(worker));
  } finally {
    await worker.terminate();
  }
}

/** Says something to a worker and waits for the answer, one after the other. */
function conversation(worker: Worker): Talk {
  let settle: { resolve: (message: FromTraceWorker) => void; reject: (error: Error) => void } | null = null;
  worker.on('message', (message: FromTraceWorker) => settle?.resolve(message));
  worker.on('error', (error) => settle?.reject(error));
  return (message) =>
    new Promise((resolve, reject) => {
      settle = { resolve, reject };
      worker.postMessage(message);
    });
}
