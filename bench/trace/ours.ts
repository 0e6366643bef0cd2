import { closeSync, openSync, readSync, statSync } from 'node:fs';
import { analyse } from '../../src/core/signals/analyse';
import { detectLayout } from '../../src/core/signals/csv/detect';
import { LogReader } from '../../src/core/signals/csv/reader';
import { HOUR } from './hour';
import { family, profile, ROOM } from '../../src/core/scenarios/traces';

/** Reads and analyses a log on one thread: `npx tsx bench/trace/ours.ts FILE`. */
const file = process.argv[2] ?? HOUR;
const start = performance.now();
const fd = openSync(file, 'r');
const piece = new Uint8Array(1 << 20);
const head = new TextDecoder().decode(piece.subarray(0, readSync(fd, piece, 0, 1 << 16, 0)));
const found = detectLayout(head);
if (!found.ok) throw new Error(found.why);
const lineLength = head.length / head.split('\n').length;
const reader = new LogReader(
  found.layout,
  ROOM.barometer_Pa,
  Math.ceil((1.02 * statSync(file).size) / lineLength),
);
for (let at = 0; ;) {
  const n = readSync(fd, piece, 0, piece.length, at);
  if (n === 0) break;
  reader.push(piece.subarray(0, n));
  at += n;
}
closeSync(fd);
const { trace, rows, troubleCount } = reader.finish();
const read = performance.now();
const { stretches } = analyse(trace, { ...ROOM, unit: family.logged(profile) });
const done = performance.now();
const results = stretches.flatMap((s) => s.results);
console.log(
  JSON.stringify({
    rows,
    troubleCount,
    read_s: (read - start) / 1000,
    analyse_s: (done - read) / 1000,
    stretches: stretches.length,
    told: results.filter((r) => r.estimate.told).length,
    results: results.length,
    peakMB: process.resourceUsage().maxRSS / 1024,
  }),
);
