import { PRACTICE_PORT } from '@/core/shop/live';
import type { StoredRun } from '@/core/records/views';
import { StandIn } from '@/devices/logger/stand-in';
import { TYPICAL_BENCH } from '@/devices/logger/typical-bench';

interface Held {
  /** Null where another process has the simulated bench. */
  readonly bench: Promise<StandIn | null>;
  /** The practice run whose unit lies on it. */
  run: string | null;
}
const held = globalThis as typeof globalThis & { hardPedalPractice?: Held };

/** Starts the simulated bench in this process, once. Where another process has it already, that one is used. */
export async function practiceBench(): Promise<Held> {
  held.hardPedalPractice ??= { bench: begun(), run: null };
  await held.hardPedalPractice.bench;
  return held.hardPedalPractice;
}

async function begun(): Promise<StandIn | null> {
  const bench = new StandIn(TYPICAL_BENCH, () => performance.now() / 1000);
  try {
    await bench.start(PRACTICE_PORT, PRACTICE_PORT + 1);
    return bench;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'EADDRINUSE') return null;
    throw error;
  }
}

/** Puts what a practice run tests on the simulated bench, sound; what lies there for it already stays as it is. */
export async function putOnBench({ id, kind, context }: StoredRun): Promise<void> {
  const practice = await practiceBench();
  if (practice.run === id) return;
  const { barometer_Pa, temperature_K } = context.conditions;
  const unit = { kind, profile: context.profile, fault: null, room: { barometer_Pa, temperature_K } };
  (await practice.bench)?.obeyed({ unit });
  practice.run = id;
}
