/** @jest-environment node */
import { installation } from '../model/installation';
import { readingOf } from '../model/vectors';
import { batterySupply, member as supply } from './battery-supply/index';
import { member as brakes, wheelBrakes } from './wheel-brakes/index';
import { electromechanical, member as booster } from './electromechanical/index';

const { typical: battery } = batterySupply;
const typical = { ...electromechanical.typical, spring_N: 80 };
const model = installation({ source: supply, unit: booster, load: brakes });
const load = { ...wheelBrakes.typical, pedalRatio: typical.pedalRatio };
const profiles = (change: { source?: object; unit?: object } = {}) => ({
  source: { ...battery, ...change.source },
  unit: { ...typical, ...change.unit },
  load,
});
const ROOM = { barometer_Pa: 101_325, elapsed_s: 0 };
const shows = (reading: string, inputs: object, of = profiles()) =>
  readingOf(
    model,
    model.healthy(of as never).values,
    { ...ROOM, pedal_N: 0, volts_V: 12.6, ...inputs },
    reading,
  );
/** A force at the rod, as the pedal makes it. */
const rod = (input_N: number) => ({ pedal_N: input_N / typical.pedalRatio });

describe('a booster with a motor on its supply, handbook-models 8.8', () => {
  test('holds 2 970 N at 600 by 40.8 A: 0.09·40.83² + 8 = 158 W, 12.34 V at its control unit behind 20 mΩ', () => {
    const at = rod(600);
    expect(shows('output', at)).toBeCloseTo(2970, 3);
    expect(shows('current', at)).toBeCloseTo(40.83, 2);
    // ½·[12.6 + √(12.6² − 4·0.02·158.06)] = 12.344; 12.80 A.
    expect(shows('terminals', at)).toBeCloseTo(12.344, 3);
    expect(shows('source.current', at)).toBeCloseTo(12.804, 2);
    expect(shows('source.feed', at)).toBeCloseTo(12.804 * 0.008, 4);
    expect(shows('source.earth', at)).toBeCloseTo(12.804 * 0.004, 4);
  });
  test('on 12.0 V behind 120 mΩ it holds 45.9 A at the most: 2.76 kN of assist and not 3.6, with the same gain before', () => {
    const weak = profiles({ source: { battery_V: 12, feed_Ohm: 0.108, own_Ohm: 0.008, earth_Ohm: 0.004 } });
    const at = { ...rod(1500), volts_V: 12 };
    expect(shows('current', at, weak)).toBeCloseTo(45.9, 1);
    expect(shows('terminals', at, weak)).toBeCloseTo(9.5, 3);
    expect(shows('output', at, weak)).toBeCloseTo(1500 - 80 + 2756, 0);
    expect(shows('output', { ...rod(300), volts_V: 12 }, weak)).toBeCloseTo(120 + 5 * 270, 3);
  });
  test('with the power off the foot alone: (F_in − F_s − F_f)/A_mc, and no track says anything', () => {
    const off = { ...rod(600), volts_V: 0 };
    expect(shows('output', off)).toBeCloseTo(600 - 60 - 80, 6);
    expect([shows('current', off), shows('track1', off), shows('terminals', off)]).toEqual([0, 0, 0]);
  });
  test('a battery at or below what it switches off at gives no assist', () => {
    expect(shows('output', { ...rod(600), volts_V: 9.4 })).toBeCloseTo(460, 6);
  });
  test('eased off, the pressure first falls 2·F_f/g lower at the rod: 24 N, some 6.9 at the pedal', () => {
    const { pedal_N } = rod(600);
    expect(pedal_N - shows('falls', rod(600))).toBeCloseTo(24 / 3.5, 6);
  });
  test('at rest its tracks stand at a tenth and nine tenths of their supply; a magnet moves both, swapped they change places', () => {
    expect([shows('track1', {}), shows('track2', {})]).toEqual([0.5, 4.5]);
    const put = (id: string, value: number) => {
      const { values } = model.healthy(profiles() as never);
      const place = model.parameters.findIndex((one) => one.id === id);
      return (reading: string) =>
        readingOf(model, values.with(place, value), { ...ROOM, pedal_N: 0, volts_V: 12.6 }, reading);
    };
    const displaced = put('magnet_m', 1e-3);
    expect([displaced('track1'), displaced('track2')].map((volts) => volts.toFixed(3))).toEqual([
      '0.600',
      '4.400',
    ]);
    const swapped = put('swapped', 1);
    expect([swapped('track1'), swapped('track2')]).toEqual([4.5, 0.5]);
  });
});
