import { PRACTICE_PORT } from '@/core/shop/live';
import { StandIn } from '@/devices/logger/stand-in';
import { TYPICAL_BENCH } from '@/devices/logger/typical-bench';

interface Held {
  readonly bench: Promise<StandIn>;
  /** Where it listens: the usual port, or the next that is free, with its hands on the port above. */
  port: number;
}
const held = globalThis as typeof globalThis & { hardPedalPractice?: Held; hardPedalLies?: Lies | null };

/** The practice run whose unit lies on the simulated bench, the state that it was put there in, and its name there. */
interface Lies {
  readonly run: string;
  readonly state: string;
  readonly label: string;
}

/** Pairs of ports that are tried. */
const MOST_PAIRS = 100;

/** Starts the simulated bench in this process, once. */
export async function practiceBench(): Promise<Held> {
  const practice: Held = (held.hardPedalPractice ??= {
    bench: begun((port) => (practice.port = port)),
    port: PRACTICE_PORT,
  });
  await practice.bench;
  return practice;
}

/** What of practice lies on the simulated bench now; null where nothing does. */
export const liesOnBench = (): Lies | null => held.hardPedalLies ?? null;
export const layOnBench = (lies: Lies | null): void => {
  held.hardPedalLies = lies;
};

async function begun(at: (port: number) => void): Promise<StandIn> {
  for (let pair = 0; ; pair += 1) {
    const bench = new StandIn(TYPICAL_BENCH, () => performance.now() / 1000);
    const port = PRACTICE_PORT + 2 * pair;
    try {
      await bench.start(port, port + 1);
      at(port);
      return bench;
    } catch (error) {
      await bench.stop();
      // Another application on this machine has one of its own.
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE' || pair >= MOST_PAIRS) throw error;
    }
  }
}
