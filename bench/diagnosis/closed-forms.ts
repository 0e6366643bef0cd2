import { faultsOf } from '../../src/core/contract/family';
import { FAMILIES, type FamilyKind } from '../../src/core/families/registry';
import { seeded } from '../../src/core/numeric/chance';
import { rehearse } from '../../src/core/procedure/rehearse';
import { benchOf } from '../../src/core/scenarios/bench';
import { HANDS, ROOM } from './hands';

/**
 * Where a unit or vehicle through time shows something else than the closed forms that a diagnosis predicts with: each item that is
 * out by more than a part of the reading, with each fault in turn. To be run bundled, as bench/steady.ts is; behind it the kind, the
 * severity, and how many healthy ones are drawn besides, as far off as the protocol draws them.
 */
const PART = 0.03;
const [kind = 'vacuum-vehicle', severityText = '0.6', drawnText = '0'] = process.argv.slice(2) as [
  FamilyKind?,
  string?,
  string?,
];
const severity = Number(severityText);
const bench = benchOf(kind);
const context = bench.contextWith();
const SEED = 1;
const REST = 'rest.supply';
const hands = HANDS[kind];
if (!hands) throw new RangeError(`${kind}: nobody carries its steps out through time`);

const gauges = new Map(Object.values(context.rig).flatMap((some) => some.map((one) => [one.tag, one])));
/** On a bench everything leans on what its own gauge reads at rest: a leak may leave that lower than the bench's source. */
const restStep = FAMILIES[kind].inputs.some(({ from }) => from?.as === 'source' && from.until)
  ? undefined
  : context.procedure.steps.find(({ items }) => items.some(({ id }) => id === REST));
/** Tolerances × 1.5. Handbook-models 12. */
const IN_SERVICE = 1.5;
const made = FAMILIES[kind].healthy(bench.profile);
const drawn = Array.from({ length: Number(drawnText) }, (_, n) => {
  const random = seeded(n + 1);
  const parameters = made.values.map(
    (value, i) => value + IN_SERVICE * made.tolerances[i]! * (2 * random() - 1),
  );
  return { name: `healthy, drawn ${n + 1}`, unit: bench.truthWith({ parameters }) };
});
const units = [
  { name: 'healthy', unit: bench.truthWith() },
  ...drawn,
  ...faultsOf(FAMILIES[kind], bench.profile).map(({ id }) => ({
    name: id,
    unit: bench.faultyTruth(id, severity),
  })),
];
for (const { name, unit } of units) {
  const rest = restStep && hands(unit.parameters, ROOM, restStep, (_item, aim) => aim)[REST];
  const truth = { ...unit, supply_Pa: rest ?? ROOM.supply_Pa };
  const events = rehearse(bench.family, context, truth, {
    random: seeded(SEED),
    startAt: '2026-11-23T08:00:00.000Z',
  });
  const closed = new Map(
    events.flatMap((event) =>
      event.type === 'captured'
        ? [[event.item, { value: event.value_SI, step: gauges.get(event.instrument)?.step_Pa ?? 0 }] as const]
        : [],
    ),
  );
  const out = context.procedure.steps.flatMap((step) =>
    Object.entries(hands(truth.parameters, ROOM, step, (_item, aim) => aim)).flatMap(([item, value]) => {
      const by = closed.get(item);
      return by && Math.abs(value - by.value) > PART * Math.abs(by.value) + 2 * by.step
        ? [`${item} ${value.toPrecision(3)} for ${by.value.toPrecision(3)}`]
        : [];
    }),
  );
  console.log(`${name.padEnd(20)} ${out.join(', ') || 'alike'}`);
}
