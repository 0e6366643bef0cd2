import { spawnSync } from 'node:child_process';
import { benchOf } from '../src/core/scenarios/bench';
import { BAR, benchOfTypical, ROOM } from '../src/core/scenarios/traces';
import { Running } from '../src/core/model/running';

/**
 * The twin over time at 1 kHz beside SciPy's solve_ivp on equations of the same size and tolerance: `npx tsx
 * bench/twin.ts` (Debian: python3-scipy). Twenty pulls and let-downs, four minutes of bench time.
 */
const MINUTES = 4;
const once = () => {
  const bench = benchOfTypical();
  bench.set({ valve: 'open' });
  let visits = 0;
  const start = performance.now();
  for (let i = 0; i < 20; i += 1)
    for (const handle_Pa of [35 * BAR, 0]) {
      bench.set({ handle_Pa });
      bench.advance(6, 1e-3, () => (visits += 1));
    }
  return { ms: performance.now() - start, steps: bench.steps, visits };
};
once();
const ours = Array.from({ length: 7 }, once).sort((a, b) => a.ms - b.ms)[3]!;
const python = spawnSync('/usr/bin/python3', ['bench/twin.py'], { encoding: 'utf8' });
const theirs =
  python.status === 0 ? (JSON.parse(python.stdout) as { seconds: number; bench_s: number }) : null;
const perSecond = ours.ms / (MINUTES * 60);

/** The same of a servo on its load cell: twenty applications of twelve seconds. */
const servoOnce = () => {
  const { family, profile } = benchOf('rod-servo');
  const { values } = family.healthy(profile);
  const bench = new Running(family.motion!, values, { ...ROOM, supply_Pa: 67_728 }, family.ports.length);
  bench.set({ valve: 'open' });
  let visits = 0;
  const start = performance.now();
  for (let i = 0; i < 20; i += 1)
    for (const handle_Pa of [12 * BAR, 0]) {
      bench.set({ handle_Pa });
      bench.advance(6, 1e-3, () => (visits += 1));
    }
  return performance.now() - start;
};
servoOnce();
const servo_ms = Array.from({ length: 7 }, servoOnce).sort((a, b) => a - b)[3]!;
console.log(
  `servo: ${servo_ms.toFixed(0)} ms, ${((1000 * MINUTES * 60) / servo_ms).toFixed(0)} times real time`,
);
console.log(
  `ours: ${ours.ms.toFixed(0)} ms for ${MINUTES * 60} s at 1 kHz, ${(1000 / perSecond).toFixed(0)} times real time, ${ours.steps} steps`,
);
if (theirs)
  console.log(
    `solve_ivp: ${theirs.seconds.toFixed(1)} s for ${theirs.bench_s} s; per second of bench time ours is ${((1000 * theirs.seconds) / theirs.bench_s / perSecond).toFixed(0)} times as fast`,
  );
else console.log(python.stderr);
