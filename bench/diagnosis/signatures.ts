import { faultsOf } from '../../src/core/contract/family';
import { Diagnostician } from '../../src/core/diagnosis/diagnose';
import { evidenceOf } from '../../src/core/diagnosis/of-run';
import { FAMILIES, type FamilyKind } from '../../src/core/families/registry';
import { benchOf } from '../../src/core/scenarios/bench';

/**
 * How far the signature of each fault lies from those of all others, in standard uncertainties: the readings of a whole test with it,
 * read by true gauges, and how much less likely the nearest other cause makes them, one fault or two of which it is none. Looks are
 * left out. Bundled as run.ts is; behind it the kind. A line of JSON for each fault and severity: score.ts takes them.
 */
const [kind = 'rod-servo'] = process.argv.slice(2) as [FamilyKind?];
const SEVERITIES = [0.1, 0.3, 0.5, 0.7, 0.9];
const family = FAMILIES[kind];
const bench = benchOf(kind);
const context = bench.contextWith();

for (const { id } of faultsOf(family, context.profile))
  for (const severity of SEVERITIES) {
    const { run } = bench.bench(bench.faultyTruth(id, severity), context);
    const readings = evidenceOf(family, context, run).filter((one) => one.kind === 'reading');
    const diagnostician = new Diagnostician(family, context.profile, { complaint: true, weights: {} });
    const { ranked } = diagnostician.posterior(readings);
    const speaks = ranked.flatMap(({ cause, chance }) =>
      chance > 0 && cause.id !== 'unknown' ? [{ cause, log: Math.log(chance / cause.prior) }] : [],
    );
    const own = speaks.find(({ cause }) => cause.id === id)?.log ?? -Infinity;
    const [nearest] = speaks
      .filter(({ cause: { faults } }) => !faults.some((fault) => fault.id === id))
      .sort((a, b) => b.log - a.log);
    // Nothing else is left where none is known to be: it lies further off than can be told.
    const far = nearest ? Math.sqrt(2 * Math.max(0, own - nearest.log)) : Infinity;
    console.log(
      JSON.stringify({ fault: id, severity, u: Math.min(99, far), nearest: nearest?.cause.id ?? null }),
    );
  }
