/** @jest-environment node */
import fc from 'fast-check';
import { withFault } from '../contract/family';
import { blended } from '../vehicle/blend';
import { simulated_Pa, simulatorStroke_m } from '../fluid/by-wire';
import { Running } from '../model/running';
import { inputVector, placeOf, readingOf } from '../model/vectors';
import { benchOf } from '../scenarios/bench';
import { runOf } from '../scenarios/run-of';
import { nextAction } from '../procedure/next-action';
import { findItem, type ReadingItem } from '../contract/steps';
import type { ByWireVehicleProfile } from './by-wire-vehicle';
import { byWire } from './by-wire/index';
import { FAMILIES } from './registry';

const KIND = 'by-wire-vehicle';
const BAR = 1e5;
const family = FAMILIES[KIND];
const typical = family.typical as ByWireVehicleProfile;
const { unit, source } = typical;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const AT = { ...ROOM, ...family.full(typical), pedal_N: 110, elapsed_s: 0, applications: 0 };
const healthy = family.healthy(typical).values;
const shows = (reading: string, inputs: object = {}, vector: readonly number[] = healthy) =>
  readingOf(family, vector, { ...AT, ...inputs }, reading);
const faulty = (id: string, severity: number) => withFault(family, healthy, [id, severity]);

describe('a decoupled brake at rest, handbook-models 8.9', () => {
  test('pedal to master to simulator: 110 N are 11.65 bar, and 19.5 mm of stroke on its second spring', () => {
    // (3.2·110 − 20)/2.85 cm² = 11.65 bar; 332 N − 15 N − 6 N/mm·9 mm = 263 N by 25 N/mm: 10.52 mm beyond 9.
    const master_Pa = (3.2 * 110 - 20) / 2.85e-4;
    expect(master_Pa / BAR).toBeCloseTo(11.649, 3);
    expect(shows('master1')).toBeCloseTo(0.5 + 0.016 * 11.649, 4);
    expect(shows('travel') / 3.2).toBeCloseTo(0.01952, 5);
  });
  test('a simulator there and back, on either spring', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-4, max: 0.03, noNaN: true }), (stroke_m) =>
        expect(simulatorStroke_m(unit, simulated_Pa(unit, stroke_m))).toBeCloseTo(stroke_m, 9),
      ),
    );
    expect(simulatorStroke_m(unit, 0.3 * BAR)).toBe(0);
  });
  test('each axle at the target of what is asked for; torques add up to m·a·r_t', () => {
    // w = (11.649 − 5)/20; a = w·0.1·11.649 + (1 − w)·0.12·(19.52 − 3).
    const w = (11.649 - 5) / 20;
    const a = w * 0.1 * 11.649 + (1 - w) * 0.12 * (19.52 - 3);
    const [front, rear] = [shows('load.frontLeft'), shows('load.rearRight')];
    const torque = 4.654e-4 * (front - 0.4 * BAR) + 1.759e-4 * (rear - 0.4 * BAR);
    expect(torque / (1600 * a * 0.31)).toBeCloseTo(1, 3);
    expect((4.654e-4 * (front - 0.4 * BAR)) / torque).toBeCloseTo(0.7, 6);
  });
  test('it begins to brake at 3 mm of stroke: 15 N + 6 N/mm·3 mm on the simulator, 16.6 N at the pedal', () => {
    expect(shows('beginsPedal')).toBeCloseTo((15 + 18 + 20) / 3.2, 1);
    expect(shows('load.frontLeft', { pedal_N: 16 })).toBe(0);
    expect(shows('load.frontLeft', { pedal_N: 18 })).toBeGreaterThan(0);
  });
  test('no wheel is given more than the accumulator less its margin', () => {
    const at = { pedal_N: 500, supply_Pa: 40 * BAR };
    expect(shows('load.rearLeft', at) / BAR).toBeCloseTo(40 - 8, 6);
  });
  test('its own stop shares as the sum does: what is asked of the drive at 15 m/s is what the front axle needs', () => {
    const asked = { pedal_N: 45 };
    const still = shows('load.frontLeft', asked) - 0.4 * BAR;
    // The front axle’s torque at that force: less than 800 N·m and than 40 kW·0.31 m/15 m/s = 827.
    expect(shows('requested')).toBeCloseTo(4.654e-4 * still, 3);
    expect(shows('granted')).toBeCloseTo(shows('requested'), 9);
    const vehicle = {
      ...unit,
      front_NmPerPa: unit.front_NmPerBar / BAR,
      rear_NmPerPa: unit.rear_NmPerBar / BAR,
      most_Pa: 170 * BAR,
    };
    const deceleration_mPerS2 = shows('requested') / 0.7 / 1600 / 0.31;
    const sum = blended(vehicle, unit, { deceleration_mPerS2, speed_mPerS: 15, fastMore: 0, grants_Nm: 1e4 });
    expect(sum.granted_Nm).toBeCloseTo(shows('granted'), 6);
    expect(sum.front_Pa).toBe(0);
  });
  test('valves open at I₀ − κ·Δp: 0.48 A with 180 bar across, and release at what stands in the wheel', () => {
    expect(shows('applyRearLeft')).toBeCloseTo(1.2 - 0.004 * 180, 9);
    const wheel_bar = shows('load.frontLeft') / BAR;
    expect(shows('releaseFrontLeft')).toBeCloseTo(1.2 - 0.004 * wheel_bar, 9);
  });
  test('power off joins the foot to the front wheels: (3.2·300 − 20)/2.85 cm² = 33.0 bar, and nothing in the rear', () => {
    const off = { volts_V: 0, supply_Pa: 0, pedal_N: 300 };
    expect(shows('load.frontLeft', off) / BAR).toBeCloseTo(32.98, 2);
    expect([shows('load.rearLeft', off), shows('master1', off)]).toEqual([0, 0]);
    // Two front brakes take 0.7 cc + 0.2 cc for 10 bar each: 2.72 cc of 2.85 cm².
    expect(shows('travel', off) / 3.2).toBeCloseTo((2 * (0.7e-6 + 2e-13 * 32.98e5)) / 2.85e-4, 4);
  });
  test('a bore that is too small for its brakes runs out of stroke first, and then of force no more comes', () => {
    const small = family.healthy({ ...typical, unit: { ...unit, stroke_m: 0.006 } }).values;
    const at = (pedal_N: number) =>
      shows('load.frontRight', { volts_V: 0, supply_Pa: 0, pedal_N }, small) / BAR;
    // (2.85 cm²·6 mm − 1.4 cc)/(2·0.2 cc for 10 bar) = 7.75 bar.
    expect(at(400)).toBeCloseTo(7.75, 1);
    expect(at(800)).toBeCloseTo(at(400), 3);
  });
  test('the store after stops: 320 J and 4 W for 8 s each, out of 20 F from 13.5 V', () => {
    const after = (stops: number) => Math.sqrt(13.5 ** 2 - (2 * stops * (320 + 32)) / 20);
    expect(shows('source.rest', { applications: 1 })).toBeCloseTo(after(1), 9);
    expect(shows('source.lowest', { applications: 2 })).toBeCloseTo(after(2) - 25 * 0.01, 9);
  });
  test('the store waited for: 40 Ω·20 F, fifteen minutes where nothing is stated, leave 4.4 V of 13.5', () => {
    expect(shows('source.residual')).toBeCloseTo(13.5 * Math.exp(-900 / 800), 9);
  });
});

describe('what each test of it tells', () => {
  const { bench, faultyTruth, truthWith } = benchOf(KIND);
  const failing = (fault: string, severity: number) =>
    bench(faultyTruth(fault, severity)).results.flatMap(({ id, verdict }) =>
      verdict === 'fails' ? [id] : [],
    );

  test('a sound one meets all', () => {
    const { results, assessment } = bench(truthWith());
    expect(results.filter(({ verdict }) => verdict === 'fails' || verdict === 'not-taken')).toEqual([]);
    expect(assessment.call).toBe('healthy');
  });
  test.each([
    ['gas-lost', 0.5, 'flick-up'],
    ['pump-weak', 0.9, 'charge-time'],
    ['accumulator-sensor', 0.8, 'cut-out'],
    ['sensor-off-rearLeft', 0.6, 'target.1.rearLeft'],
    ['sensor-scale-frontRight', 1, 'target.2.frontRight'],
    ['sensor-stuck-frontLeft', 0.5, 'target.1.frontLeft'],
    ['masters-differ', 0.6, 'masters'],
    ['track-drift', 0.8, 'sum-rest'],
    ['isolation-leaks', 0.8, 'sinks'],
    ['simulator-air', 0.9, 'travel-1'],
    ['simulator-stuck', 0.6, 'travel-2'],
    ['isolation-shut-1', 0.5, 'fallback.frontLeft'],
    ['isolation-shut-2', 0.5, 'fallback.frontRight'],
    ['apply-leaks-rearRight', 0.7, 'released.rearRight'],
    ['apply-sticks-frontLeft', 0.3, 'apply.frontLeft'],
    ['release-leaks-rearLeft', 0.7, 'target.2.rearLeft'],
    ['relief-weeps', 0.9, 'stand'],
    ['capacitor-weak', 0.7, 'store-rest'],
    ['capacitor-resists', 0.9, 'store-lowest'],
    ['contact-stuck', 1, 'contacts'],
    ['shield-open', 0.6, 'swing'],
    ['not-granted', 0.5, 'granted'],
    ['air', 1, 'fallback-travel'],
  ])('%s is found: %s', (fault, severity, result) => {
    expect(failing(fault, severity)).toContain(result);
  });
  test('a release valve is judged by what stands in its wheel: one that an apply valve presses too hard is none the worse', () => {
    const { byId } = bench(faultyTruth('apply-leaks-rearLeft', 0.6));
    expect(byId('release.rearLeft').verdict).toBe('meets');
    expect(byId('release.rearLeft').value!).toBeCloseTo(1.2, 2);
  });
  test('an isolation valve that is stuck shut shows without power only: a test, and no word of the profile', () => {
    const shut = faulty('isolation-shut-1', 1);
    for (const reading of ['travel', 'load.frontLeft', 'applyFrontLeft'])
      expect(shows(reading, {}, shut)).toBe(shows(reading));
    expect(failing('isolation-shut-1', 1)).toEqual(['fallback.frontLeft', 'fallback-travel']);
  });
  test('a wheel that is pressed with no foot is looked into before it is called a drag: a function stops the test', () => {
    const { procedure } = benchOf(KIND).contextWith();
    const [first, ...rest] = procedure.steps.find(({ id }) => id === 'released')!.items;
    expect(first).toMatchObject({ kind: 'observation', id: 'test-state' });
    const presses =
      first!.kind === 'observation' ? first!.answers.find(({ id }) => id === 'presses') : undefined;
    expect(presses?.stops).toMatchObject({
      goesOn: 'mended',
      say: expect.stringMatching(/function and no fault/),
    });
    expect(rest.every(({ kind }) => kind === 'reading')).toBe(true);
  });
});

describe('the store is shown to be empty by a reading', () => {
  const read = (run: ReturnType<typeof runOf>, item: string, value_SI: number) =>
    run.take({
      type: 'captured',
      item,
      value_SI,
      typed: '1',
      by: 'typed',
      instrument: 'U-8',
      confirmedUnlikely: false,
    });

  test('9 V are refused and 3 V let through; the wait opens nothing, and a meter that is not live proves nothing', () => {
    const run = runOf(KIND);
    run.upTo('dead.live');
    const next = () => nextAction(run.procedure(), run.state());
    // Leads off, or the fuse of the meter gone: no proof.
    expect(read(run, 'dead.live', 0)).toBeNull();
    expect(next()).toMatchObject({ item: { id: 'dead.live' } });
    expect(read(run, 'dead.live', 13.4)).toBeNull();
    run.upTo('dead.store');
    expect(read(run, 'dead.store', 9)).toBeNull();
    expect(next()).toMatchObject({ item: { id: 'dead.store' } });
    expect(read(run, 'dead.store', 3)).toBeNull();
    expect(next()).toMatchObject({ item: { id: 'dead.live-again' } });
    // The same meter, dead by now: what it read of the store says nothing yet.
    expect(read(run, 'dead.live-again', 0)).toBeNull();
    expect(next()).toMatchObject({ item: { id: 'dead.live-again' } });
    expect(read(run, 'dead.live-again', 13.4)).toBeNull();
    expect(next()).toMatchObject({ step: { id: 'zeros' } });
  });
  test('what holds the store may be opened once its meter was live before and after, and not before', () => {
    const run = runOf(KIND);
    run.upTo('fallback.input');
    const { opens } = family.parts.find(({ id }) => id === 'capacitor')!;
    expect(opens).toEqual(['store']);
    const again = run.state().captures.findLast(({ item }) => item === 'dead.live-again')!;
    expect(run.take({ type: 'struck', capture: again.id })).toBeNull();
    expect(run.open(opens)).toEqual({ code: 'may-hold', ports: ['store'] });
    expect(read(run, 'dead.live-again', 13.4)).toBeNull();
    expect(run.open(opens)).toBeNull();
  });
  test('power on again, nothing is done without power before it was read anew', () => {
    const run = runOf(KIND);
    run.upTo('fallback.input');
    const action = nextAction(run.procedure(), run.state());
    const again = run.state().captures.filter(({ item }) => item === 'dead.store');
    expect(action).toMatchObject({ item: { id: 'fallback.input' } });
    expect(again.length).toBeGreaterThan(1);
  });
  test('a gate whose wait is to be done again asks for the wait, and not for a reading that would not count', () => {
    const run = runOf(KIND);
    run.upTo('fallback.input');
    expect(run.take({ type: 'reopened', item: 'dead.live' })).toBeNull();
    expect(read(run, 'dead.live', 13.4)).toBeNull();
    expect(nextAction(run.procedure(), run.state())).toMatchObject({ item: { id: 'dead.wait' } });
  });
  test('all three readings are of one meter, and none is captured without a hand', () => {
    const { procedure } = benchOf(KIND).contextWith();
    const items = ['dead', 'emptied'].flatMap((step) =>
      ['live', 'store', 'live-again'].map((id) => findItem(procedure, `${step}.${id}`)!.item as ReadingItem),
    );
    expect(new Set(items.map(({ gauge }) => gauge))).toEqual(new Set(['U-8']));
    expect(items.every(({ moment }) => moment === 'by-hand')).toBe(true);
    expect(findItem(procedure, 'dead.wait')!.item).toMatchObject({ duration_s: 900 });
  });
});

describe('the same over time', () => {
  const room = { ...ROOM, supply_Pa: 0 };
  const running = (vector: readonly number[]) => {
    const bench = new Running(family.motion!, vector, room, family.ports.length);
    const at = Object.fromEntries(family.ports.map(({ id }, i) => [id, i]));
    return { bench, now: (port: string) => bench.read()[at[port]!]! };
  };
  const charged = (vector: readonly number[]) => {
    const run = running(vector);
    run.bench.set({ power: true });
    run.bench.advance(60);
    return run;
  };

  test('from empty the pump stops after the time of the closed form, at what its sensor takes for the cut-out', () => {
    const { bench, now } = running(healthy);
    bench.set({ power: true });
    const closed_s = shows('chargeTime');
    bench.advance(closed_s - 0.3);
    expect(now('supply')).toBeLessThan(unit.out_Pa);
    bench.advance(0.6);
    expect(now('supply') / unit.out_Pa).toBeCloseTo(1, 2);
  });
  test('pressed and held, wheels, travel, masters and tracks end where the closed forms say', () => {
    fc.assert(
      fc.property(fc.integer({ min: 30, max: 200 }), (pedal_N) => {
        const vector = faulty('release-leaks-rearLeft', 0.5);
        const { bench, now } = charged(vector);
        bench.set({ pedal_N, press_NPerS: 300 });
        bench.advance(3);
        const at = { pedal_N, supply_Pa: now('supply') };
        for (const [port, reading] of [
          ['front-left', 'load.frontLeft'],
          ['rear-left', 'load.rearLeft'],
          ['rear-right', 'load.rearRight'],
          ['travel', 'travel'],
          ['master-2', 'master2'],
          ['rear-left-sensor', 'sensorRearLeft'],
        ] as const)
          expect(now(port) / shows(reading, at, vector)).toBeCloseTo(1, 2);
      }),
      { numRuns: 8, endOnFailure: true },
    );
  });
  test('battery off, the store goes on feeding it; emptied, the foot alone reaches the front wheels as in the closed form', () => {
    const { bench, now } = charged(healthy);
    bench.set({ power: false, pedal_N: 110, press_NPerS: 300 });
    bench.advance(2);
    expect(now('rear-left') / shows('load.rearLeft', { supply_Pa: now('supply') })).toBeCloseTo(1, 1);
    expect(now('store')).toBeGreaterThan(12.5);
    bench.set({ waited: true, pedal_N: 0 });
    bench.advance(15);
    expect(now('store')).toBeLessThan(1);
    bench.set({ pedal_N: 300, press_NPerS: 200 });
    bench.advance(4);
    expect(now('front-left') / shows('aloneFrontLeft', { pedal_N: 300 })).toBeCloseTo(1, 2);
    expect(now('travel') / shows('aloneTravel', { pedal_N: 300 })).toBeCloseTo(1, 1);
    expect(now('rear-left')).toBeLessThan(1);
  });
  test('pre-fill presses every wheel with no foot, and is told as what it is', () => {
    const { bench, now } = charged(healthy);
    bench.set({ byItself: 'prefill' });
    bench.advance(1);
    expect(now('front-left') / BAR).toBeCloseTo(3, 1);
    const told = bench.tells();
    expect(told).toMatchObject({ testState: 1, red: false, yellow: false });
    const through = byWire.throughInterface!.released!;
    const says = through.tells([{ t_s: 0, values: told, asked: [] }], unit).says.map(({ text }) => text);
    expect(says.join()).toMatch(/a function and no drag/);
    expect(through.tells([{ t_s: 0, values: { ...told, testState: 0 }, asked: [] }], unit).says).toEqual([]);
  });
});

test.each<[string, object, RegExp]>([
  ['a table whose volts fall', { table_V: [4.5, 0.5] }, /the volts must rise/],
  ['volts beyond the supply', { table_V: [0.5, 5.5] }, /cannot stand on a supply of 5 V/],
  ['a table of unequal columns', { table_V: [0.5, 2, 4.5] }, /as many volts and bands as pressures/],
  ['a valve that opens by itself', { zero_A: 0.5 }, /must not open by itself/],
])('%s is refused with the relation', (_what, change, says) => {
  const parsed = family.profile.safeParse({ ...typical, unit: { ...unit, ...change } });
  expect(parsed.error?.issues.map(({ message }) => message).join()).toMatch(says);
});
test('a mass that differs from the one of its stop is refused', () => {
  const stop = { mass_kg: 1700, front_NPerBar: 150, rear_NPerBar: 57, contact_Pa: 0.4 * BAR };
  const parsed = family.profile.safeParse({ ...typical, load: { ...typical.load, stop } });
  expect(parsed.error?.issues.map(({ message }) => message).join()).toMatch(/weighs as much here/);
});
test('a capacitance of nothing, and a store counted on further than the unit goes on, are refused', () => {
  const refused = (change: object) =>
    family.profile
      .safeParse({ ...typical, source: { ...source, ...change } })
      .error?.issues.map(({ message }) => message)
      .join();
  expect(refused({ capacitance_F: 0 })).toMatch(/too small/);
  expect(refused({ least_V: 8 })).toMatch(/no further than the control unit goes on/);
});
test('every reading is asked for by its place', () => {
  const inputs = inputVector(family.inputs, AT);
  const all = family.steady(healthy, inputs);
  for (const { id } of family.readings) {
    const place = placeOf(family.readings, id);
    expect(family.steady(healthy, inputs, new Set([place]))[place]).toBe(all[place]);
  }
});
