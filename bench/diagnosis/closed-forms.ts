import { FAMILIES } from '../../src/core/families/registry';
import type { VacuumVehicleProfile } from '../../src/core/families/vacuum-vehicle';
import { seeded } from '../../src/core/numeric/chance';
import { rehearse } from '../../src/core/procedure/rehearse';
import { benchOf } from '../../src/core/scenarios/bench';
import { perform } from './vehicle';

/**
 * Where a vehicle through time shows something else than the closed forms that a diagnosis predicts with: each item that is out by
 * more than a part of the reading, for a vehicle with each fault in turn. To be run bundled, as bench/steady.ts is; a number
 * behind it is the severity.
 */
const PART = 0.03;
const severity = Number(process.argv[2] ?? 0.6);
const bench = benchOf('vacuum-vehicle');
const context = bench.contextWith();
const { barometer_Pa, temperature_K } = context.conditions;
const SEED = 1;

for (const fault of [null, ...FAMILIES['vacuum-vehicle'].faults]) {
  const truth = fault ? bench.faultyTruth(fault.id, severity) : bench.truthWith();
  if (fault?.fits && !fault.fits(bench.truthWith().parameters)) continue;
  const events = rehearse(bench.family, context, truth, {
    random: seeded(SEED),
    startAt: '2026-11-23T08:00:00.000Z',
  });
  const closed = new Map(
    events.flatMap((event) => (event.type === 'captured' ? [[event.item, event.value_SI] as const] : [])),
  );
  const gauges = new Map(Object.values(context.rig).flatMap((some) => some.map((one) => [one.tag, one])));
  const stepOf = new Map(
    events.flatMap((event) =>
      event.type === 'captured' ? [[event.item, gauges.get(event.instrument)?.step_Pa ?? 0] as const] : [],
    ),
  );
  const out: string[] = [];
  for (const step of context.procedure.steps) {
    const shown = perform(
      truth.parameters,
      { barometer_Pa, temperature_K },
      bench.profile as VacuumVehicleProfile,
      context.procedure,
      step,
    );
    for (const [item, value] of Object.entries(shown)) {
      const by = closed.get(item);
      if (by !== undefined && Math.abs(value - by) > PART * Math.abs(by) + 2 * (stepOf.get(item) ?? 0))
        out.push(`${item} ${value.toPrecision(3)} for ${by.toPrecision(3)}`);
    }
  }
  console.log(`${(fault?.id ?? 'healthy').padEnd(20)} ${out.join(', ') || 'alike'}`);
}
