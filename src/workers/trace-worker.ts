import { parentPort } from 'node:worker_threads';
import type { About } from '@/core/signals/analyse';
import type { LogLayout } from '@/core/signals/csv/layout';
import { TraceJob, type TraceOutcome } from './trace-product';

/** What is sent to the worker: how to read, then the file in pieces, then its end. */
export type ToTraceWorker =
  | {
      readonly type: 'begin';
      readonly layout: LogLayout | null;
      readonly about: About;
      readonly bytes: number;
    }
  | { readonly type: 'piece'; readonly bytes: Uint8Array }
  | { readonly type: 'end' };
/** What comes back: that a piece was taken in, and at the end what came of it. */
export type FromTraceWorker =
  { readonly type: 'more' } | { readonly type: 'done'; readonly outcome: TraceOutcome };

let job: TraceJob | null = null;
const answer = (message: FromTraceWorker) => parentPort!.postMessage(message);

parentPort!.on('message', (message: ToTraceWorker) => {
  if (message.type === 'begin') job = new TraceJob(message.layout, message.about, message.bytes);
  else if (message.type === 'piece') job!.push(message.bytes);
  else {
    answer({ type: 'done', outcome: job!.finish() });
    return;
  }
  answer({ type: 'more' });
});
