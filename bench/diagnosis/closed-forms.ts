import { faultsOf } from '../../src/core/contract/family';
import { FAMILIES, type FamilyKind } from '../../src/core/families/registry';
import { seeded } from '../../src/core/numeric/chance';
import { rehearse } from '../../src/core/procedure/rehearse';
import { benchOf } from '../../src/core/scenarios/bench';
import { HANDS, ROOM } from './hands';

/**
 * Where a unit or vehicle through time shows something else than the closed forms that a diagnosis predicts with: each item that is
 * out by more than a part of the reading, with each fault in turn. To be run bundled, as bench/steady.ts is; behind it the kind, and
 * the severity.
 */
const PART = 0.03;
const [kind = 'vacuum-vehicle', severityText = '0.6'] = process.argv.slice(2) as [FamilyKind?, string?];
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
for (const fault of [null, ...faultsOf(FAMILIES[kind], bench.profile)]) {
  const unit = fault ? bench.faultyTruth(fault.id, severity) : bench.truthWith();
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
  console.log(`${(fault?.id ?? 'healthy').padEnd(20)} ${out.join(', ') || 'alike'}`);
}
