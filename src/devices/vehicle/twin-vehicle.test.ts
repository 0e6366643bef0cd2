/** @jest-environment node */
import { FAMILIES } from '@/core/families/registry';
import { ELECTRIC_PUMP } from '@/core/scenarios/bench';
import { identifierOf, USUAL_MAP, valuesOf } from '@/core/shop/identifier-map';
import type { Hands } from '@/core/model/motion';
import { SimBench } from '../logger/sim-bench';
import { TYPICAL_BENCH } from '../logger/typical-bench';
import { VehicleLink } from './client';
import { VehicleStandIn } from './stand-in';
import { TwinVehicle } from './twin-vehicle';
import { CODES } from './uds';

const KPA = 1000;
const ROOM = { barometer_Pa: 101_300, temperature_K: 293.15 };
const family = FAMILIES['vacuum-vehicle'];
const typical = family.typical as { readonly source: object };
/** The typical vehicle with an electric pump: on below 55 kPa of vacuum, off above 70. */
const profile = family.profile.parse({
  ...typical,
  source: { ...typical.source, ...ELECTRIC_PUMP },
});
/** A vehicle behind its interface, with what is done at it by hand and the time that passes on it. */
function vehicle(fault: readonly [string, number] | null = null, room = ROOM) {
  const stands = new SimBench({ ...TYPICAL_BENCH, kind: 'vacuum-vehicle', profile, fault, room });
  return Object.assign(new TwinVehicle(() => stands, USUAL_MAP), {
    set: (change: Hands) => stands.set(change),
    advance: (seconds: number) => stands.advance(seconds, seconds, () => {}),
  });
}
const told = (one: TwinVehicle, number: string) =>
  valuesOf(identifierOf(USUAL_MAP, number)!, one.read(parseInt(number, 16))!)!;
const vacuum_Pa = (one: TwinVehicle) => {
  const { barometer, unitPressure } = told(one, '4B03');
  return (barometer as number) - (unitPressure as number);
};

describe('an electric vacuum pump, by what the vehicle tells', () => {
  test('rests with the key off, pulls down to its upper threshold, and stops there', () => {
    const one = vehicle();
    one.advance(5);
    expect(told(one, '4B02')).toEqual({ pump: 0 });
    expect(vacuum_Pa(one)).toBeCloseTo(0, -2);
    expect(told(one, '4B04')).toEqual({ onBelow: 55 * KPA, offAbove: 70 * KPA });
    one.set({ key: 'ignition' });
    one.advance(1);
    expect(told(one, '4B02')).toEqual({ pump: 1 });
    one.advance(60);
    expect(told(one, '4B02')).toEqual({ pump: 0 });
    // No higher than where it stops; the booster goes on taking a little.
    expect(vacuum_Pa(one)).toBeGreaterThan(0.97 * 70 * KPA);
    expect(vacuum_Pa(one)).toBeLessThan(1.01 * 70 * KPA);
  });
  test('asked for, it goes on to all that it can: 88 % of the barometer; given back, it stops', () => {
    const one = vehicle();
    one.set({ key: 'ignition' });
    one.advance(60);
    expect(one.control(0x4b02, 1)).toBeNull();
    one.advance(120);
    expect(told(one, '4B02')).toEqual({ pump: 1 });
    expect(vacuum_Pa(one) / (0.88 * ROOM.barometer_Pa)).toBeGreaterThan(0.97);
    expect(vacuum_Pa(one) / (0.88 * ROOM.barometer_Pa)).toBeLessThan(1.001);
    expect(one.control(0x4b02, null)).toBeNull();
    one.advance(1);
    expect(told(one, '4B02')).toEqual({ pump: 0 });
  });
  test('asked to stop it stops, and with the key off it cannot be asked to run', () => {
    const one = vehicle();
    one.set({ key: 'ignition' });
    expect(one.control(0x4b02, 0)).toBeNull();
    one.advance(2);
    expect(told(one, '4B02')).toEqual({ pump: 0 });
    one.control(0x4b02, 1);
    one.set({ key: 'off' });
    one.advance(1);
    expect(told(one, '4B02')).toEqual({ pump: 0 });
  });
  test('up high it cannot reach its own cut-off, and runs on: 0.88 of 75 kPa are 66', () => {
    const one = vehicle(null, { ...ROOM, barometer_Pa: 75 * KPA });
    one.set({ key: 'ignition' });
    one.advance(300);
    expect(told(one, '4B02')).toEqual({ pump: 1 });
    expect(vacuum_Pa(one)).toBeLessThan(66.1 * KPA);
  });
  test('dead, its vacuum does not grow', () => {
    const one = vehicle(['electric-dead', 1]);
    one.set({ key: 'ignition' });
    one.control(0x4b02, 1);
    one.advance(60);
    expect(vacuum_Pa(one)).toBeLessThan(1 * KPA);
  });
});

describe('control', () => {
  test('is refused while it moves, below 11 V, and of what cannot be controlled; given back always', () => {
    const one = vehicle();
    one.set({ key: 'ignition' });
    one.control(0x4b02, 1);
    one.be({ speed_mPerS: 3 });
    expect(one.control(0x4b02, 1)).toBe(0x88);
    expect(one.control(0x4b02, null)).toBeNull();
    one.be({ speed_mPerS: 0, supply_V: 10.9 });
    expect(one.control(0x4b02, 1)).toBe(0x93);
    one.be({ supply_V: 12.6 });
    for (const [number, state] of [
      [0x4b13, 1],
      [0x4bff, 1],
      [0x4b02, 7],
    ] as const)
      expect([number, one.control(number, state)]).toEqual([number, 0x31]);
  });
  test('speed and supply are told, and what it has no sensor for is not available', () => {
    const one = vehicle();
    one.be({ speed_mPerS: 10, supply_V: 12.1 });
    expect(told(one, '4B19').speed).toBeCloseTo(10, 2);
    expect(told(one, '4B16').supply).toBeCloseTo(12.1, 3);
    expect(told(one, '4B13')).toEqual({ accumulator: null });
    expect(one.read(0x4bff)).toBeNull();
  });
});

test('over the line: read, switched on, given back as the line is closed; codes by status, and cleared', async () => {
  const one = vehicle();
  one.set({ key: 'ignition' });
  one.be({ codes: [{ code: 'C12A1-62', status: 0x09 }] });
  const addresses = { tester: 0x0e80, unit: 0x1b10 };
  const standIn = new VehicleStandIn(addresses, one);
  const port = await standIn.start(0);
  const opened = await VehicleLink.open({ host: '127.0.0.1', port, ...addresses });
  if (!opened.ok) throw new Error(opened.why);
  const { link } = opened;
  await link.session('extended');
  one.advance(60);
  expect((await link.control(0x4b02, 1)).ok).toBe(true);
  one.advance(1);
  const pump = await link.ask({ service: 'read', identifier: 0x4b02 });
  expect(pump.ok && valuesOf(identifierOf(USUAL_MAP, '4B02')!, pump.answer.data)).toEqual({ pump: 1 });
  expect(await link.ask({ service: 'codes', statusMask: 8 })).toMatchObject({
    answer: { codes: [{ code: 'C12A1-62' }] },
  });
  await link.ask({ service: 'clear' });
  expect(one.codes(0xff)).toEqual([]);
  await link.close();
  one.advance(1);
  expect(told(one, '4B02')).toEqual({ pump: 0 });
  await standIn.stop();
});

describe('a decoupled brake, by what the vehicle tells', () => {
  const kind = 'by-wire-vehicle';
  const brake = () => {
    const stands = new SimBench({
      ...TYPICAL_BENCH,
      kind,
      profile: FAMILIES[kind].typical,
      fault: null,
      room: ROOM,
    });
    const one = new TwinVehicle(() => stands, USUAL_MAP);
    const advance = (seconds: number) => stands.advance(seconds, seconds, () => {});
    return { one, advance, set: (change: Hands) => stands.set(change) };
  };

  test('its own supply and store, what it does of itself, and its four wheels', () => {
    const { one, advance, set } = brake();
    set({ power: true });
    advance(40);
    // 13.5 V less 12 W by 20 mΩ.
    expect(told(one, '4B16')).toEqual({ supply: expect.closeTo(13.48, 2) as number });
    expect(told(one, '4B17')).toEqual({ capacitor: expect.closeTo(13.5, 1) as number });
    expect(told(one, '4B19')).toEqual({ testState: 0, speed: 0 });
    set({ byItself: 'hill' });
    advance(2);
    expect(told(one, '4B19')).toMatchObject({ testState: 3 });
    const wheels = Object.values(told(one, '4B12')) as number[];
    expect(wheels.map((wheel) => Math.round(wheel / 1e5))).toEqual([25, 25, 25, 25]);
  });
  test('rolling it tells what was asked for and granted; nothing of it is controlled while it moves', () => {
    const { one, advance, set } = brake();
    set({ power: true, rolling: 'passing', pedal_N: 45 });
    advance(40);
    const { requested, granted } = told(one, '4B15') as { requested: number; granted: number };
    expect(requested).toBeGreaterThan(200);
    expect(granted).toBe(requested);
    expect(told(one, '4B19')).toMatchObject({ speed: expect.closeTo(15, 1) as number });
    expect(one.control(0x4b02, 1)).toBe(CODES.moving);
    set({ rolling: 'standing' });
    expect(one.control(0x4b02, 1)).not.toBe(CODES.moving);
  });
});
