import { parentPort } from 'node:worker_threads';
import type { About } from '@/core/signals/analysis';
import type { LogLayout } from '@/core/signals/csv/layout';
import type { Trace } from '@/core/signals/trace';
import { productOf, TraceJob, type TraceOutcome, type WorkedOut } from './trace-product';

/** What is sent to the worker: how to read, then the file in pieces, then its end. */
export type ToTraceWorker =
  | {
      readonly type: 'begin';
      readonly layout: LogLayout | null;
      readonly about: About;
      readonly bytes: number;
    }
  | { readonly type: 'piece'; readonly bytes: Uint8Array }
  | { readonly type: 'end' }
  /** Or readings that are in hand already, to be worked out. */
  | { readonly type: 'trace'; readonly trace: Trace; readonly about: About };
/** What comes back: that a piece was taken in, and at the end what came of it. */
export type FromTraceWorker =
  | { readonly type: 'more' }
  | { readonly type: 'done'; readonly outcome: TraceOutcome }
  | { readonly type: 'worked-out'; readonly product: WorkedOut };

let job: TraceJob | null = null;
const answer = (message: FromTraceWorker) => parentPort!.postMessage(message);

parentPort!.on('message', (message: ToTraceWorker) => {
  switch (message.type) {
    case 'begin':
      job = new TraceJob(message.layout, message.about, message.bytes);
      return answer({ type: 'more' });
    case 'piece':
      job!.push(message.bytes);
      return answer({ type: 'more' });
    case 'end':
      return answer({ type: 'done', outcome: job!.finish() });
    case 'trace':
      return answer({ type: 'worked-out', product: productOf(message.trace, message.about) });
  }
});
