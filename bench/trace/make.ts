import { closeSync, openSync, writeSync } from 'node:fs';
import { seeded, gaussian } from '../../src/core/numeric/chance';
import { BAR, benchOfTypical, WHOLE_TEST } from '../../src/core/scenarios/traces';
import { HOUR } from './hour';
import type { Script } from '../../src/core/twin/recording';

/**
 * Writes a log of one hour at 1 kHz with six channels: `npx tsx bench/trace/make.ts FILE [seconds]`. The bench test
 * over and over, then the reserve pumped away; seeded noise.
 */
const [file = HOUR, length = '3600'] = process.argv.slice(2);
const seconds = Number(length);
const RATE_HZ = 1000;
const pump: Script = [
  [{ handle_Pa: 15 * BAR, pull_PaPerS: 15 * BAR }, 3],
  [{ handle_Pa: 0, pull_PaPerS: 15 * BAR }, 3],
];
const reserve: Script = [[{ valve: 'open' }, 20], [{ valve: 'shut' }, 2], ...Array(20).fill(pump).flat()];
const once: Script = [...WHOLE_TEST, [{ valve: 'vented' }, 5]];
const script: Script = [
  ...Array(Math.max(1, Math.floor((seconds - 142) / 235)))
    .fill(once)
    .flat(),
  ...reserve,
];

const random = seeded(2611);
const bench = benchOfTypical();
const out = openSync(file, 'w');
writeSync(out, 'Time [s],Input [bar],Output [bar],Supply [kPa],Activation [kPa],Front [bar],Rear [bar]\n');
let lines: string[] = [];
let rows = 0;
const noisy = (value: number, sigma: number) => value + sigma * gaussian(random);
const visit = (t: number, shown: Float64Array) => {
  if (rows >= seconds * RATE_HZ) return;
  rows += 1;
  const [input, output, supply, activation] = shown as unknown as number[];
  const front = output!;
  const rear = front < 40 * BAR ? front : 40 * BAR + 0.4 * (front - 40 * BAR);
  lines.push(
    `${t.toFixed(3)},${(noisy(input!, 5e3) / BAR).toFixed(3)},${(noisy(output!, 8e3) / BAR).toFixed(3)},` +
      `${(noisy(supply!, 60) / 1e3).toFixed(3)},${(noisy(activation!, 60) / 1e3).toFixed(3)},` +
      `${(noisy(front, 8e3) / BAR).toFixed(3)},${(noisy(rear, 8e3) / BAR).toFixed(3)}`,
  );
  if (lines.length === 50_000) flush();
};
function flush(): void {
  writeSync(out, `${lines.join('\n')}\n`);
  lines = [];
}
while (rows < seconds * RATE_HZ)
  for (const [change, time] of script) {
    bench.set(change);
    bench.advance(time, 1 / RATE_HZ, visit);
  }
if (lines.length > 0) flush();
closeSync(out);
console.log(`${file}: ${rows} rows`);
