/** @jest-environment node */
import { gaussian, seeded } from '../numeric/chance';
import { printSentence } from '../quantities/sentence';
import { between } from '../scenarios/trial';
import { blended, type BlendedVehicle, type Regeneration } from '../vehicle/blend';
import { blendIn, blendLog, blendSays, type BlendLog } from './blend-log';
import type { Trace } from './trace';

const BAR = 1e5;
/** The handbook's car: 57 and 36 mm, 0.12 m, 0.38 and 0.36 of friction: 4·μ·A·r. Handbook-models 8.9. */
const CAR: BlendedVehicle = {
  mass_kg: 1600,
  tyre_m: 0.31,
  frontShare: 0.7,
  driven: 'front',
  front_NmPerPa: 4 * 0.38 * (Math.PI / 4) * 0.057 ** 2 * 0.12,
  rear_NmPerPa: 4 * 0.36 * (Math.PI / 4) * 0.036 ** 2 * 0.12,
  contact_Pa: 0.4 * BAR,
  most_Pa: 160 * BAR,
};
const MACHINE: Regeneration = { most_Nm: 800, power_W: 40_000, fadesTo_mPerS: 1.5, fadesFrom_mPerS: 3.5 };

interface Stop {
  readonly noise?: number;
  readonly seed?: number;
  readonly car?: BlendedVehicle;
  /** Most that is granted at a moment. */
  readonly grants?: (t_s: number) => number;
  /** Something happens to what is pressed. */
  readonly front?: (pressure_Pa: number, t_s: number) => number;
  readonly asks?: (t_s: number) => number;
}
const A = 2.5;
const FROM = 20;
/** A foot that comes on and is eased a little, time and again: the deceleration that it asks for. */
const eased = (t: number) => A * (1 - 0.3 * Math.sin(1.9 * t) ** 2);
/** A stop from 20 m/s, as the sums of 8.9 share it, fifty readings a second; at 2.5 m/s² all the way where nothing else is said. */
function stopped({
  noise = 1,
  seed = 1,
  car = CAR,
  grants = () => Infinity,
  front = (p) => p,
  asks = () => A,
}: Stop = {}): Trace {
  const random = seeded(seed);
  const time_s = Float64Array.from({ length: 400 }, (_, i) => i / 50);
  let speed = FROM;
  const rows = Array.from(time_s, (t, i) => {
    if (i > 0) speed = Math.max(0, speed - asks(t) / 50);
    const one = blended(car, MACHINE, {
      deceleration_mPerS2: asks(t),
      speed_mPerS: speed,
      fastMore: 0,
      grants_Nm: grants(t),
    });
    return [
      one.total_Nm + 3 * noise * gaussian(random),
      one.requested_Nm + 3 * noise * gaussian(random),
      one.granted_Nm + 3 * noise * gaussian(random),
      front(one.front_Pa, t) + 0.05 * BAR * noise * gaussian(random),
      one.rear_Pa + 0.05 * BAR * noise * gaussian(random),
      speed + 0.02 * noise * gaussian(random),
    ];
  });
  const quantities = ['torque', 'torque', 'torque', 'pressure', 'pressure', 'speed'] as const;
  return {
    time_s,
    channels: ['asked', 'requested', 'granted', 'front', 'rear', 'speed'].map((port, i) => ({
      name: port,
      port,
      quantity: quantities[i]!,
      values: Float64Array.from(rows, (row) => row[i]!),
    })),
  };
}
function blendOf(trace: Trace): BlendLog {
  const [asked, requested, granted, front, rear, speed] = trace.channels;
  return blendLog(trace, { asked: asked!, requested, granted: granted!, front: front!, rear: rear!, speed });
}
const valueOf = (of: BlendLog['front']) => (of.told ? of.value : NaN);
const said = (stop: Stop) => blendSays(blendOf(stopped(stop))).map((one) => printSentence(one, 'metric'));

test('a whole stop: both axles by their pressures, and what was taken back of its work', () => {
  const blend = blendOf(stopped({ asks: eased }));
  // 10 bar: 4·0.38·25.52 cm²·0.12 = 465 N·m in front, 4·0.36·10.18 cm²·0.12 = 176 behind.
  expect(Math.abs(valueOf(blend.front) - 465.4)).toBeLessThan(10);
  expect(Math.abs(valueOf(blend.rear) - 176)).toBeLessThan(15);
  expect(valueOf(blend.refused)).toBe(0);
  expect(said({ asks: eased })).toEqual([]);
});

test('at one deceleration the rear tells nothing of itself, and all the same what was taken back of the work', () => {
  const blend = blendOf(stopped());
  expect(blend.rear.told ? null : blend.rear.why.text).toMatch(/hardly changes/);
  // ∫T·v dt = 1 240·20²/2a; of that 40 kW·0.31 = 12 400 a second while P·r_t/v is less than 800, from 20 m/s to 15.5; then 800·v down to
  // 3.5, and fading down to 1.5 with 800·2·(2·3.5 + 1.5)/6a.
  const whole = (1240 * FROM ** 2) / (2 * A);
  const back = (12_400 * (20 - 15.5)) / A + (800 * (15.5 ** 2 - 3.5 ** 2)) / (2 * A);
  const fading = (800 * 2 * (2 * 3.5 + 1.5)) / (6 * A);
  expect(valueOf(blend.share)).toBeCloseTo((back + fading) / whole, 2);
  expect(said({})).toEqual([]);
});

test('half of it not granted from the third second on: said, and that friction made it up', () => {
  const grants = (t: number) => (t > 3 ? 400 : Infinity);
  const blend = blendOf(stopped({ grants }));
  // 40 kW·0.31/12.5 m/s is 992: 800 asked for, 400 of it not granted.
  expect(Math.abs(valueOf(blend.refused) - 400)).toBeLessThan(15);
  expect(said({ grants })).toEqual(['What the machine was asked for and did not grant, friction made up.']);
});

test('a battery that is full grants nothing: where friction does not follow, what is missing is told, and when', () => {
  const grants = (t: number) => (t > 3 && t < 4 ? 0 : Infinity);
  // The front goes on as if all had been granted.
  const missing = (p: number, t: number) => (t > 3 && t < 4 ? p - 800 / CAR.front_NmPerPa : p);
  const says = said({ grants, front: missing });
  expect(says[0]).toMatch(/^At 3\.\d+ s 8\d\d.* N·m of what was asked is accounted for neither/);
  expect(says[1]).toMatch(/friction did not make up/);
});

/** ∫T_g·v dt over ∫T·v dt of an eased stop with no noise. */
function sharedOf(car: BlendedVehicle): number {
  let [speed, back, whole] = [FROM, 0, 0];
  for (let i = 0; i < 400; i += 1) {
    const deceleration_mPerS2 = eased(i / 50);
    if (i > 0) speed = Math.max(0, speed - deceleration_mPerS2 / 50);
    const asked = { deceleration_mPerS2, speed_mPerS: speed, fastMore: 0, grants_Nm: Infinity };
    const { total_Nm, granted_Nm } = blended(car, MACHINE, asked);
    back += granted_Nm * speed;
    whole += total_Nm * speed;
  }
  return back / whole;
}

test('the limits hold the truth in 92 to 99 of a hundred stops', () => {
  const random = seeded(20_261_131);
  const within = { front: 0, rear: 0, share: 0 };
  const told = { front: 0, rear: 0, share: 0 };
  for (let seed = 1; seed <= 1000; seed += 1) {
    const car = {
      ...CAR,
      front_NmPerPa: CAR.front_NmPerPa * between(random, 0.7, 1.3),
      rear_NmPerPa: CAR.rear_NmPerPa * between(random, 0.7, 1.3),
    };
    const noise = between(random, 0.2, 1.5);
    const found = blendOf(stopped({ car, noise, seed, asks: eased }));
    const truth = {
      front: 1e6 * car.front_NmPerPa,
      rear: 1e6 * car.rear_NmPerPa,
      share: sharedOf(car),
    };
    for (const name of ['front', 'rear', 'share'] as const) {
      const of = found[name];
      if (!of.told) continue;
      told[name] += 1;
      if (Math.abs(of.value - truth[name]) <= 2 * of.u) within[name] += 1;
    }
  }
  // Where the front presses too little while the machine works, the rear hardly changes in what is left.
  expect(Math.min(told.front, told.share)).toBeGreaterThan(990);
  expect(told.rear).toBeGreaterThan(700);
  for (const name of ['front', 'rear', 'share'] as const) {
    expect(within[name] / told[name]).toBeGreaterThan(0.92);
    expect(within[name] / told[name]).toBeLessThan(0.99);
  }
});

test('without torque asked and granted there is no blend, and a standing car tells none', () => {
  const trace = stopped();
  expect(blendIn({ ...trace, channels: trace.channels.filter(({ port }) => port !== 'granted') })).toEqual(
    [],
  );
  const still = {
    ...trace,
    channels: trace.channels.map((channel) => ({ ...channel, values: channel.values.map(() => 0) })),
  };
  expect(blendIn(still)[0]!.results.every(({ estimate }) => !estimate.told)).toBe(true);
});
