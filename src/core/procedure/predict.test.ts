import fc from 'fast-check';
import { combinedUncertainty, sharedUncertainty_SI } from '../metrology/uncertainty';
import { bench, BAR, benchOf, contextWith, family, gauges, INHG, rig, truthWith } from '../scenarios/bench';
import type { RunEvent } from '../contract/events';
import { instrumentsOf, gateRule } from './measured-item';
import { inputsAt } from './inputs-at';
import { placeOf } from '../model/vectors';
import { predict } from './predict';
import { findItem, type ReadingItem } from '../contract/steps';
import { EMPTY_RUN, reduceRun } from './run';

const context = contextWith();
const gate = gateRule(instrumentsOf(context.rig));
const { events } = bench(truthWith());
const item = (id: string) => findItem(context.procedure, id)!.item as ReadingItem;
const before = (id: string, list: readonly RunEvent[] = events) =>
  reduceRun(
    context.procedure,
    list.slice(
      0,
      list.findIndex((e) => 'item' in e && e.item === id),
    ),
    gate,
  );
const at = (id: string) => predict(family, context, before(id), item(id));

describe('what is expected before a reading is taken', () => {
  test('nothing, where the source is on and was not read: no value is assumed in its place', () => {
    expect(predict(family, context, EMPTY_RUN, item('ratio.1.output'))).toBeNull();
    expect(inputsAt(family, context, EMPTY_RUN, item('full.output'))).toBeNull();
  });
  test('at the target while the input is not read, at the input once it is', () => {
    const aimed = predict(family, context, before('ratio.1.input'), item('ratio.1.output'))!;
    expect(aimed.expected / BAR).toBeCloseTo(3.6 * 12, 6);
    const high = events.map((e) =>
      e.type === 'captured' && e.item === 'ratio.1.input' ? { ...e, value_SI: 12.6 * BAR } : e,
    );
    const read = predict(family, context, before('ratio.1.output', high), item('ratio.1.output'))!;
    expect(read.expected / BAR).toBeCloseTo(3.6 * 12.6, 6);
  });
  test('a reading that it rests on counts by the slope there, and no input is taken below none for it', () => {
    const slopesAt = (id: string, list = events) =>
      predict(family, context, before(id, list), item(id))!.terms.map((term) => term.sensitivity);
    // Between cracking and runout a bar in is 3.6 bar out; the supply does not count there.
    expect(slopesAt('ratio.1.output')).toEqual([expect.closeTo(-3.6, 6)]);
    // With the assist off a bar in is a bar out, at an input that reads none as well: half of its doubt would be below none.
    const none = events.map((e) =>
      e.type === 'captured' && e.item === 'bypass.1.input' ? { ...e, value_SI: 0 } : e,
    );
    expect(slopesAt('bypass.1.output', none)).toEqual([expect.closeTo(-1, 6)]);
  });
  test('with the assist off the supply counts as none', () => {
    expect(at('bypass.2.output')!.inputs.supply_Pa).toBe(0);
    expect(at('bypass.2.output')!.expected / BAR).toBeCloseTo(45, 0);
  });
  test('a hold that shuts the vacuum in keeps the depression read at its start', () => {
    const left = at('loss-released.end')!;
    expect(left.inputs.supply_Pa! / INHG).toBeCloseTo(20, 6);
    // A healthy unit uses a quarter of its limit: 0.25 inHg in the minute.
    expect((left.inputs.supply_Pa! - left.expected) / INHG).toBeCloseTo(0.25, 2);
  });
  test('a supply read under load counts for what was read under the same load before it', () => {
    const dropped = events.map((event) =>
      event.type === 'captured' && event.item === 'full.supply' ? { ...event, value_SI: 12 * INHG } : event,
    );
    const whole = reduceRun(context.procedure, dropped, gate);
    expect(predict(family, context, whole, item('ratio.4.output'))!.inputs.supply_Pa! / INHG).toBeCloseTo(
      12,
      6,
    );
    expect(predict(family, context, whole, item('rest.activation'))!.inputs.supply_Pa! / INHG).toBeCloseTo(
      20,
      6,
    );
  });
  test('readings that are set are not predicted', () => {
    for (const id of ['ratio.1.input', 'rest.supply', 'zero.IN-L']) expect(at(id)).toBeNull();
  });
});

describe('what the expectation leans on', () => {
  const profileK = 1 - (6 / 20.6) ** 2;
  const areas = (0.23 / 0.0206) ** 2;
  const sensitivities = (id: string, supply_inHg = 20) => {
    const run =
      supply_inHg === 20
        ? before(id)
        : before(id, bench(truthWith({ supply_Pa: supply_inHg * INHG })).events);
    const { terms } = predict(family, context, run, item(id))!;
    return Object.fromEntries(terms.map((t) => [t.measured.instrument.tag, t.sensitivity]));
  };
  // Analytic: below the knee ∂out/∂in = B and ∂out/∂Δp = 0; above it k and A_d/A_slave. The terms are −∂ŷ/∂x.
  test('below the knee: −B on the input, nothing on the supply', () => {
    const found = sensitivities('ratio.2.output');
    expect(found['IN-H']).toBeCloseTo(-3.6, 6);
    expect(found['VAC-S']).toBeUndefined();
  });
  test('above the knee: −k on the input, −A_d/A_slave on the supply', () => {
    const found = sensitivities('full.output', 15);
    expect(found['IN-H']).toBeCloseTo(-profileK, 6);
    expect(found['VAC-S']).toBeCloseTo(-areas, 4);
  });
  test('one gauge read on both sides: its error is counted once, with its sign', () => {
    const { terms } = at('ratio.2.output')!;
    const input = terms[0]!.measured;
    const sameGauge = { ...input, value_SI: 3.6 * input.value_SI };
    const together = combinedUncertainty([{ sensitivity: 1, measured: sameGauge }, ...terms]);
    // (1 − 3.6)·MPE/√3, and the steps of both.
    const shared = 2.6 * sharedUncertainty_SI(input);
    const steps = (gauges.inHigh.step_Pa / Math.sqrt(12)) * Math.SQRT2 * Math.hypot(1, 3.6);
    expect(together).toBeCloseTo(Math.hypot(shared, steps), 0);
  });
  test('the band holds tolerances only: a worse gauge does not widen it', () => {
    const poor = { ...gauges.inHigh, accuracy: { kind: 'en-837-1', class: '4' } as const };
    const other = contextWith({ rig: { ...rig, input: [gauges.inLow, poor] } });
    expect(predict(family, other, before('ratio.2.output'), item('ratio.2.output'))!.band).toEqual(
      at('ratio.2.output')!.band,
    );
  });
  test('the expected value lies within its band, wherever the supply stands', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 27, noNaN: true }),
        fc.constantFrom('ratio.3.output', 'full.output', 'runout.output'),
        (inHg, id) => {
          const run = before(id, bench(truthWith({ supply_Pa: inHg * INHG })).events);
          const { expected, band } = predict(family, context, run, item(id))!;
          return band.low <= expected + 1e-6 && expected <= band.high + 1e-6;
        },
      ),
      { numRuns: 25 },
    );
  });
});

test('what stays as it is counts for what was read before it: a battery measured after the charge', () => {
  const pumped = benchOf('motor-pump-booster');
  const { values } = pumped.family.healthy(pumped.profile);
  const low = values.with(placeOf(pumped.family.parameters, 'source.supply_V'), 12.3);
  const { context, run } = pumped.bench(pumped.truthWith({ parameters: low }));
  const { item } = findItem(context.procedure, 'charge.time')!;
  expect(item.kind).toBe('reading');
  const found = predict(pumped.family, context, run, item as ReadingItem)!;
  expect(found.inputs.volts_V).toBeCloseTo(12.3, 2);
  // Until anybody measures it, what a healthy one has.
  const early = { ...run, captures: run.captures.filter(({ item: of }) => of !== 'battery.volts') };
  expect(predict(pumped.family, context, early, item as ReadingItem)!.inputs.volts_V).toBe(13);
});
