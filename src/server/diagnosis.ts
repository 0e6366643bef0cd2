import type { Replied, Reply } from '@/core/diagnosis/question';
import { done, invalid, refused, type Outcome } from './outcome';
import { roomOf } from './room';
import { inThread } from './thread';

/** What it probably is and what to test next, worked out off the main thread. Ends where the sender goes away. */
export async function askDiagnosis(asked: unknown, signal?: AbortSignal): Promise<Outcome<Reply>> {
  const replied = await roomOf('diagnoses').within(() =>
    inThread<Replied>('diagnosis-thread', asked, { signal }),
  );
  if (!replied) return refused({ code: 'refused', message: 'It was stopped before it was worked out.' });
  return replied.ok ? done(replied.reply) : invalid(replied.issues);
}
