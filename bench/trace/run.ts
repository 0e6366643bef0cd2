import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildSync } from 'esbuild';
import { medianOf } from '../figures';
import { HOUR } from './hour';

/**
 * A log of an hour at 1 kHz with six channels (3.6 million lines), read and fully analysed, in turn with a
 * straightforward pandas and SciPy script that does the same: `npx tsx bench/trace/run.ts [rounds]` (Debian:
 * python3-pandas, python3-scipy). Whole processes, from start to end.
 */
const rounds = Number(process.argv[2] ?? 5);
const log = HOUR;
if (!existsSync(log)) spawnSync('npx', ['tsx', 'bench/trace/make.ts', log], { stdio: 'inherit' });
const bundle = path.join(tmpdir(), 'hard-pedal-trace-bench.cjs');
buildSync({
  entryPoints: ['bench/trace/ours.ts'],
  outfile: bundle,
  bundle: true,
  platform: 'node',
  format: 'cjs',
});

interface Figures {
  readonly wall_s: number;
  readonly peakMB: number;
  readonly read_s: number;
  readonly analyse_s: number;
}
const timed = (command: string, args: readonly string[]): Figures => {
  const start = performance.now();
  const { stdout, stderr, status } = spawnSync(command, args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(stderr);
  return { ...(JSON.parse(stdout) as Figures), wall_s: (performance.now() - start) / 1000 };
};
const ours: Figures[] = [];
const theirs: Figures[] = [];
for (let i = 0; i <= rounds; i += 1) {
  const [a, b] = [
    timed(process.execPath, [bundle, log]),
    timed('/usr/bin/python3', ['bench/trace/baseline.py', log]),
  ];
  // The first round fills the disk's cache.
  if (i > 0) {
    ours.push(a);
    theirs.push(b);
  }
}
const row = (all: readonly Figures[]) => ({
  'whole, s': medianOf(all.map((f) => f.wall_s)).toFixed(2),
  'reading, s': medianOf(all.map((f) => f.read_s)).toFixed(2),
  'analysing, s': medianOf(all.map((f) => f.analyse_s)).toFixed(2),
  'peak, MB': medianOf(all.map((f) => f.peakMB)).toFixed(0),
});
console.table({ ours: row(ours), 'pandas and SciPy': row(theirs) });
const ratios = ours.map((a, i) => theirs[i]!.wall_s / a.wall_s);
console.log(
  `faster, pair by pair: ${medianOf(ratios).toFixed(2)} (${Math.min(...ratios).toFixed(2)} to ${Math.max(...ratios).toFixed(2)})`,
);
