/** @jest-environment node */
import { withFault } from '../../contract/family';
import { STATED } from '../../fluid/brake-fluid';
import { readingOf } from '../../model/vectors';
import { motorPumpBench, type MotorPumpBenchProfile } from '../motor-pump-bench';

const BAR = 1e5;
const profile = motorPumpBench.typical as MotorPumpBenchProfile;
const { values } = motorPumpBench.healthy(profile);
const room = { barometer_Pa: 101_325, temperature_K: 293.15, volts_V: 13, fluid_K: 293.15, applications: 0 };
const place = (id: string) => motorPumpBench.parameters.findIndex((one) => one.id === id);
const shows = (reading: string, inputs: object, parameters: readonly number[] = values) =>
  readingOf(motorPumpBench, parameters, { ...room, pedal_N: 0, supply_Pa: 160 * BAR, ...inputs }, reading);
/** A booster of which the switch answers at once. */
const atOnce = values.with(place('delay_s'), 0);
const leaking = (overViscosity: number) =>
  atOnce.with(place('leak_m3PerS'), overViscosity * STATED.across_Pa);

describe('handbook-models 8.5, worked example: 0.30 L, 65 bar, out at 160', () => {
  test('filled in 20.2 s', () => expect(shows('chargeTime', {}, leaking(0))).toBeCloseTo(20.2, 0));
  test('with a leak of 3e−15 and in at 125: on 3.4 s, and off about 530 s from the third on; longer where it was pressed to start', () => {
    const leaks = leaking(3e-15);
    // Started by the leak the gas is hardly colder than its shell: as the fluid's own tests have it. Pressed down within seconds it
    // is, and so smaller: less fluid goes in, and as it warms up the pressure rises again.
    const within = (value: number, low: number, high: number) => {
      expect(value).toBeGreaterThan(low);
      expect(value).toBeLessThan(high);
    };
    within(shows('onTime', {}, leaks) / 3.4, 0.9, 1);
    within(shows('offTime', {}, leaks) / 530, 1, 1.3);
  });
  test('current at 65 and at 150 bar: 8.4 and 15.9 A, and what the feed of 0.025 Ω loses by it', () => {
    const at = (bar: number) => shows('source.current', { supply_Pa: bar * BAR });
    expect(at(65)).toBeCloseTo(8.4, 1);
    expect(at(150)).toBeCloseTo(15.9, 1);
    expect(shows('source.drop', { supply_Pa: 150 * BAR })).toBeCloseTo(15.9 * 0.025, 2);
  });
});

describe('metering and reserve', () => {
  test('150 N at the pedal: (5·(600 − 8 − 60) + 300) N on the rod, over the area of the master', () => {
    const master_m2 = (Math.PI / 4) * 0.0286 ** 2;
    expect(shows('load.pressure', { pedal_N: 150 })).toBeCloseTo((5 * 532 + 300) / master_m2, -2);
  });
  test('with nothing stored, the foot alone: 150 N · 4 − 8 − 180 N', () => {
    const master_m2 = (Math.PI / 4) * 0.0286 ** 2;
    expect(shows('load.pressure', { pedal_N: 150, supply_Pa: 0 })).toBeCloseTo(412 / master_m2, -2);
  });
  test('every application takes A_p times the way of the rod, and the spool its own: the gas law says the rest', () => {
    // Slow limit: 65 bar in 0.30 L at 20 °C; at 160 bar 0.1203 L of gas by the isotherm of Z 1.02, at 95 bar more.
    const kept = [1, 2, 3, 8].map((applications) => shows('kept', { applications }) / BAR);
    expect(kept).toEqual([...kept].sort((a, b) => b - a));
    expect(kept.at(-1)!).toBeLessThan(160);
    expect(kept.at(-1)!).toBeGreaterThan(95);
  });
});

describe('what faults do, by the table of 8.5', () => {
  const faulty = (id: string, severity = 0.6) => withFault(motorPumpBench, values, [id, severity]);
  const change = (id: string, reading: string, inputs: object = {}, severity = 0.6) =>
    shows(reading, inputs, faulty(id, severity)) / shows(reading, inputs);
  test('low gas: flick-up low, the first charge longer, then on and off both short, duty unchanged', () => {
    expect(change('gas-loss', 'flickUp')).toBeLessThan(0.4);
    expect(change('gas-loss', 'chargeTime')).toBeGreaterThan(1);
    expect(change('gas-loss', 'onTime')).toBeLessThan(0.7);
    const leaks = (vector: readonly number[]) =>
      vector.with(place('leak_m3PerS'), 10 * values[place('leak_m3PerS')]!).with(place('delay_s'), 0);
    const duty = (vector: readonly number[]) => {
      const [on, off] = [shows('onTime', {}, leaks(vector)), shows('offTime', {}, leaks(vector))];
      return on / (on + off);
    };
    expect(duty(faulty('gas-loss')) / duty(values)).toBeGreaterThan(0.8);
    // Unchanged but for how cold the gas is as it starts.
    expect(duty(faulty('gas-loss')) / duty(values)).toBeLessThan(1.4);
  });
  test('a worn pump: charge slower with the current as it was; hot, it never stops', () => {
    expect(change('vanes-worn', 'chargeTime', {}, 1)).toBeGreaterThan(1.15);
    expect(change('vanes-worn', 'source.current')).toBe(1);
    const hot = { fluid_K: 333.15 };
    // k_p×3 at 60 °C: the ceiling is 128 bar (P.4).
    const worn = faulty('vanes-worn', Math.log(2) / Math.log(3));
    expect(shows('cutOut', hot, worn) / BAR).toBeCloseTo(128, -1);
    expect(shows('chargeTime', hot, worn)).toBe(120);
  });
  test('fluid in the motor: current up alone; a poor feed: drop up and the charge slower, current as it was', () => {
    expect(change('motor-wet', 'source.current')).toBeGreaterThan(1.3);
    expect(change('motor-wet', 'chargeTime')).toBe(1);
    expect(change('feed-poor', 'source.drop')).toBeGreaterThan(5);
    expect(change('feed-poor', 'source.current')).toBe(1);
    expect(change('feed-poor', 'chargeTime')).toBeGreaterThan(1.2);
  });
  test('a switch stuck on runs against the relief, one stuck off never starts', () => {
    expect(shows('cutOut', {}, faulty('switch-stuck-on')) / BAR).toBeCloseTo(210, 0);
    expect(shows('offTime', {}, faulty('switch-stuck-on'))).toBe(0);
    for (const reading of ['flickUp', 'cutOut'])
      expect(shows(reading, {}, faulty('switch-stuck-off'))).toBe(0);
  });
  test('a relief that weeps holds it below where it should stop, or lets it fall to one pressure soon', () => {
    expect(shows('cutOut', {}, faulty('relief-weeps', 1)) / BAR).toBeLessThan(140);
    expect(change('relief-weeps', 'offTime', {}, 0.3)).toBeLessThan(0.75);
  });
});
