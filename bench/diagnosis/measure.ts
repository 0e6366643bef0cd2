import { Diagnostician } from '../../src/core/diagnosis/diagnose';
import { evidenceOf } from '../../src/core/diagnosis/of-run';
import { possibleSteps } from '../../src/core/diagnosis/possible';
import { waitCounts } from '../../src/core/diagnosis/next-test';
import { FAMILIES, type FamilyKind } from '../../src/core/families/registry';
import { benchOf } from '../../src/core/scenarios/bench';
import { medianOf } from '../figures';

/**
 * How long one update of a diagnosis takes with everything before it kept, and the search for the next test, as the readings of one
 * test come in: a fault of some severity, read by true gauges. Bundled as run.ts is; behind it the kind, the fault and the severity.
 */
const [kind = 'vacuum-vehicle', fault = 'hose-blocked', severity = '0.6'] = process.argv.slice(2) as [
  FamilyKind?,
  string?,
  string?,
];
const bench = benchOf(kind);
const context = bench.contextWith();
const { run } = bench.bench(bench.faultyTruth(fault, Number(severity)), context);
const evidence = evidenceOf(FAMILIES[kind], context, run);
const possible = possibleSteps(FAMILIES[kind], context, run);
const diagnostician = new Diagnostician(FAMILIES[kind], context.profile, { complaint: true, weights: {} });
const timed = (work: () => void) => {
  const from = performance.now();
  work();
  return performance.now() - from;
};
const [updates, searches, counts]: [number[], number[], number[]] = [[], [], []];
for (let read = 1; read <= evidence.length; read += 1) {
  const seen = evidence.slice(0, read);
  let weighed = 0;
  const update = timed(() => {
    weighed = diagnostician.posterior(seen).of.length;
  });
  // The same once more, for the search alone is what is over.
  const again = timed(() => diagnostician.posterior(seen));
  const both = timed(() => diagnostician.diagnose(seen, possible, waitCounts(false)));
  updates.push(update);
  counts.push(weighed);
  searches.push(both - again);
}
const line = (name: string, ms: readonly number[]) =>
  console.log(
    `${name.padEnd(22)} median ${medianOf(ms).toFixed(0)} ms, at most ${Math.max(...ms).toFixed(0)} ms`,
  );
console.log(
  `${kind}, ${fault} ${severity}: ${evidence.length} pieces of evidence, ${Math.max(...counts)} particles at most`,
);
line('one update', updates);
line('next test, all kept', searches);
