import type { Moved } from '@/core/documents/before-after';
import type { StoredRun } from '@/core/records/views';
import { Busy, roomOf } from './room';
import { inThread } from './thread';

/** What changed in a unit between two of its tests, worked out off the main thread. Where there is no room for that it says so. */
export async function movedBetweenTests(before: StoredRun, after: StoredRun): Promise<Moved> {
  const [one, other] = [before, after].map(({ kind, context, events }) => ({ kind, context, events }));
  try {
    const moved = await roomOf('diagnoses').within(() =>
      inThread<Moved>('comparison-thread', { before: one, after: other }),
    );
    return moved!;
  } catch (error) {
    if (error instanceof Busy) return { ok: false, why: error.message };
    throw error;
  }
}
