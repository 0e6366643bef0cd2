import fc from 'fast-check';
import {
  bench,
  BAR,
  benchOf,
  contextWith,
  family,
  faultyTruth,
  gauges,
  INHG,
  outcome,
  profile,
  truthWith,
} from '../scenarios/bench';
import { measured } from '../metrology/uncertainty';
import { checkCapture, type CaptureProblem } from './check-capture';
import { runEventSchema } from '../contract/events';
import { instrumentsOf, gateRule } from './measured-item';
import { findItem, type ReadingItem } from '../contract/steps';
import { outsideReach } from './reach';
import { gaussian, seeded } from '../numeric/chance';
import { rehearse } from './rehearse';
import { admitEvent } from './admission';
import { applyEvent, reduceRun } from './run';

const context = contextWith();
const { procedure } = context;
const gate = gateRule(instrumentsOf(context.rig));
const item = (id: string) => findItem(procedure, id)!.item as ReadingItem;

describe('the simulated bench', () => {
  test('the same seed gives the same run, another seed another', () => {
    const run = (seed: number) => bench(truthWith({ noise_steps: 0.3 }), context, seed).events;
    expect(run(7)).toEqual(run(7));
    expect(run(7)).not.toEqual(run(8));
  });
  test('every event it makes would be taken from a technician, and every id is its own', () => {
    const { events } = bench(faultyTruth('torn-diaphragm', 0.8, { noise_steps: 0.3 }));
    let state = reduceRun(procedure, [], gate);
    for (const event of events) {
      expect(runEventSchema.safeParse(event).success).toBe(true);
      expect(admitEvent(procedure, state, event)).toBeNull();
      state = applyEvent(procedure, state, event, gate);
    }
    expect(state.finished).toBe(true);
    expect(new Set(events.map(({ id }) => id)).size).toBe(events.length);
  });
  test('time only goes forward, and holds take their time', () => {
    const times = bench(truthWith()).events.map(({ at }) => Date.parse(at));
    times.slice(1).forEach((at, i) => expect(at).toBeGreaterThanOrEqual(times[i]!));
    expect((times.at(-1)! - times[0]!) / 60_000).toBeGreaterThan(10);
  });
  test('what stands before its first reading of a step stands as long as it should', () => {
    const vehicle = benchOf('hydraulic-vehicle');
    const { byId } = vehicle.bench(vehicle.faultyTruth('spool-leak', 1), vehicle.contextWith());
    // 50 times the leak: at once the reserve is there, behind the hour nothing.
    expect(byId('reserve.1').verdict).toBe('meets');
    expect(byId('hour').verdict).toBe('fails');
  });
  test('stops before the item it is told', () => {
    const events = rehearse(family, context, truthWith(), {
      random: seeded(1),
      startAt: '2026-11-23T08:00:00.000Z',
      until: 'full.supply',
    });
    expect(events.some((e) => e.type === 'captured' && e.item === 'full.supply')).toBe(false);
    expect(events.some((e) => e.type === 'captured' && e.item === 'ratio.4.output')).toBe(true);
  });
  test('reads the low gauge of a tied pair until its full scale, then the high one', () => {
    const by = new Map(
      bench(truthWith()).events.flatMap((e) =>
        e.type === 'captured' ? [[e.item, e.instrument] as const] : [],
      ),
    );
    expect(by.get('crack.input')).toBe('IN-L');
    expect(by.get('residual.output')).toBe('OUT-L');
    expect(by.get('ratio.1.input')).toBe('IN-H');
    expect(by.get('full.output')).toBe('OUT-H');
  });
  test('a gauge shows what its error makes of the truth, in whole steps', () => {
    const { events } = bench(truthWith({ gauges: { 'OUT-H': { scale: 1.05, zero_Pa: 0.6 * BAR } } }));
    const shown = (id: string) => {
      const event = events.find((e) => e.type === 'captured' && e.item === id);
      return event?.type === 'captured' ? event.value_SI : Number.NaN;
    };
    expect(shown('zero.OUT-H')).toBeCloseTo(0.6 * BAR, 6);
    const input = shown('bypass.4.input');
    expect(Math.abs(shown('bypass.4.output') - (1.05 * input + 0.6 * BAR))).toBeLessThan(0.4 * BAR);
    expect(Math.round(shown('full.output') / gauges.outHigh.step_Pa) * gauges.outHigh.step_Pa).toBeCloseTo(
      shown('full.output'),
      3,
    );
  });
  test('seeded chance is uniform, and its deviates are normal, to what 20 000 of them can show', () => {
    const random = seeded(42);
    const draws = Array.from({ length: 20_000 }, () => gaussian(random));
    const mean = draws.reduce((sum, z) => sum + z, 0) / draws.length;
    const variance = draws.reduce((sum, z) => sum + (z - mean) ** 2, 0) / draws.length;
    // Standard errors: 1/√20 000 = 0.0071 of the mean, √(2/20 000) = 0.01 of the variance.
    expect(Math.abs(mean)).toBeLessThan(0.03);
    expect(Math.abs(variance - 1)).toBeLessThan(0.04);
    expect(draws.filter((z) => Math.abs(z) > 1.96).length / draws.length).toBeCloseTo(0.05, 2);
  });
});

describe('likely and unlikely', () => {
  test('no reading that one fault gives, at any severity and on any supply, is called unlikely', () => {
    const faults = fc.constantFrom(...family.faults.map(({ id }) => id));
    fc.assert(
      fc.property(
        faults,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 8, max: 26, noNaN: true }),
        (fault, severity, inHg) => {
          const { events } = bench(
            faultyTruth(fault, severity, { supply_Pa: inHg * INHG, noise_steps: 0.3 }),
          );
          let state = reduceRun(procedure, [], gate);
          for (const event of events) {
            if (event.type === 'captured') {
              const gauge = instrumentsOf(context.rig).get(event.instrument)!;
              const found = outsideReach(
                family,
                context,
                state,
                item(event.item),
                measured([event.value_SI], gauge),
              );
              if (found)
                throw new Error(
                  `${fault} ${severity} at ${event.item}: ${event.value_SI} outside ${found.low} to ${found.high}`,
                );
            }
            state = applyEvent(procedure, state, event, gate);
          }
          return true;
        },
      ),
      { numRuns: 40 },
    );
  });
  test('nothing is said where the twin cannot predict: what is set, or a supply not read', () => {
    const state = reduceRun(procedure, [], gate);
    const far = measured([150 * BAR], gauges.inHigh);
    expect(outsideReach(family, context, state, item('ratio.1.input'), far)).toBeNull();
    expect(outsideReach(family, context, state, item('full.output'), far)).toBeNull();
  });
});

describe('what stands in the way of a capture', () => {
  const { events } = bench(truthWith());
  const before = (id: string) =>
    reduceRun(
      procedure,
      events.slice(
        0,
        events.findIndex((e) => 'item' in e && e.item === id),
      ),
      gate,
    );
  const check = (id: string, gauge: (typeof gauges)[keyof typeof gauges], value: number) =>
    said(checkCapture(family, context, before(id), { item: item(id), gauge, value_SI: value, by: 'typed' }));
  const said = (problem: CaptureProblem | null) =>
    problem && `${problem.asks ? 'asks' : 'refuses'}: ${problem.say('mixed')}`;
  test.each([
    ['full.output', 'outHigh', 100 * BAR, null],
    ['full.output', 'outHigh', 161 * BAR, /^refuses: .* beyond the full scale of OUT-/],
    ['full.output', 'outLow', 100 * BAR, /^refuses: .* beyond the full scale of OUT-/],
    ['full.output', 'outHigh', 150 * BAR, /^asks: .*no known fault gives/],
    ['full.output', 'outHigh', -2 * BAR, /^refuses: .*below absolute zero/],
    ['rest.supply', 'supply', 20 * INHG, null],
    ['rest.supply', 'supply', 29.95 * INHG, /^refuses: .*no vacuum is deeper/],
    ['rest.supply', 'supply', -INHG, /^refuses: .*not a vacuum/],
    ['rest.output', 'outLow', 0, null],
    ['rest.output', 'outLow', 5 * BAR, null],
    ['residual.output', 'outLow', 9.5 * BAR, /^asks: .*no known fault gives/],
  ] as const)('%s on %s: %d gives %s', (id, gauge, value, words) => {
    const found = check(id, gauges[gauge], value);
    if (words) expect(found).toMatch(words);
    else expect(found).toBeNull();
  });
  test('a gauge’s vented zero is taken off before it is judged likely', () => {
    const zeroed = bench(truthWith({ gauges: { 'OUT-H': { zero_Pa: 12 * BAR } } })).events;
    const state = reduceRun(
      procedure,
      zeroed.slice(
        0,
        zeroed.findIndex((e) => 'item' in e && e.item === 'full.output'),
      ),
      gate,
    );
    const at = (value: number) =>
      checkCapture(family, context, state, {
        item: item('full.output'),
        gauge: gauges.outHigh,
        value_SI: value,
        by: 'typed',
      });
    expect(at(138 * BAR)).toBeNull();
    expect(check('full.output', gauges.outHigh, 138 * BAR)).toMatch(/^asks/);
  });
});

describe('the run in a sentence', () => {
  const call = (change: Parameters<typeof truthWith>[0]) => bench(truthWith(change)).assessment;
  test.each([
    ['healthy', {}],
    ['weak-supply', { supply_Pa: 14 * INHG }],
    ['faulty', { signs: { 'seep-high.end-cap': 'weeps' } }],
    ['faulty', { signs: { threads: 'damaged' }, supply_Pa: 14 * INHG }],
    ['incomplete', { signs: { 'seep-high.end-cap': 'not-looked' } }],
  ] as const)('%s: %j', (expected, change) => expect(call(change).call).toBe(expected));
  test('a failing unit on a weak supply is told both', () => {
    const { events } = bench(faultyTruth('cup-bypass', 1, { supply_Pa: 14 * INHG }));
    const { assessment } = outcome(context, events);
    expect(assessment.call).toBe('faulty');
    expect(assessment.reasons.map(({ text }) => text).join(' ')).toMatch(/What falls short is the supply/);
  });
  test('a unit close to a limit is not settled, and names what is close', () => {
    const place = family.parameters.findIndex(({ id }) => id === 'residual_Pa');
    const { assessment } = bench(
      truthWith({ parameters: family.healthy(profile).values.with(place, 0.5 * BAR) }),
    );
    expect(assessment).toMatchObject({ call: 'open', headline: 'Not settled yet' });
    expect(assessment.reasons[0]!.text).toBe('Too close to call: residual output after release.');
  });
});
