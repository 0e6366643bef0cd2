/** @jest-environment node */
import { withFault } from '../contract/family';
import { FAMILIES } from '../families/registry';
import { HYDRAULIC_FLUIDS, viscosity_PaS } from '../fluid/hydraulic-fluid';
import { settlingOf } from '../fluid/metering-valve';
import { placeOf } from '../model/vectors';
import { analyse } from '../signals/analyse';
import type { Stretch } from '../signals/analysis';
import { printSentence } from '../quantities/sentence';
import { recordBench, type Script } from '../twin/recording';

const BAR = 1e5;
const MM = 1e-3;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const family = FAMILIES['pedal-valve'];
const healthy = family.healthy(family.typical).values;

const of = (values: readonly number[]) => (id: string) => values[placeOf(family.parameters, id)]!;

/** Pack on until both accumulators are full, then what the foot does; 100 readings in a second, each with a scatter of 0.2 bar. */
function pressed(fault: [string, number] | null, foot: Script): readonly Stretch[] {
  const values = withFault(family, healthy, fault);
  const logger = { seed: 21, rate_Hz: 100, pressureNoise_Pa: 0.2 * BAR };
  const trace = recordBench(family, values, 0, ROOM, [[{}, 1], [{ pump: true }, 200], ...foot], logger);
  return analyse(trace, { ...ROOM, unit: family.logged(family.typical) }).stretches;
}
const numberOf = (stretch: Stretch | undefined, id: string) => {
  const found = stretch?.results.find((one) => one.id === id)?.estimate;
  if (!found?.told) throw new RangeError(`${id}: ${JSON.stringify(found ?? 'no such result')}`);
  return found.value;
};

const slowly = (speed_mPerS: number, there_s: number): Script => [
  [{ treadle_m: 14.4 * MM, press_mPerS: speed_mPerS }, there_s],
  [{ treadle_m: 0, press_mPerS: speed_mPerS }, there_s],
];
/** A step that the valve follows without its passage being the limit. */
const step: Script = [
  [{ treadle_m: 6 * MM, press_mPerS: 1 * MM }, 14],
  [{ treadle_m: 6.6 * MM, press_mPerS: 50 * MM }, 12],
  [{ treadle_m: 0, press_mPerS: 50 * MM }, 3],
];

describe('a pedal valve pressed slowly and let go, logged', () => {
  const p = of(healthy);
  const sweep = pressed(null, slowly(0.6 * MM, 28)).find(({ kind }) => kind === 'sweep');
  test('slope k_s/A, match F_d/A of both circuits, within a hundredth and a twentieth of a bar', () => {
    const slope = p('spring_NPerM') / p('area_m2');
    for (const circuit of ['output', 'output-2'])
      expect(Math.abs(numberOf(sweep, `${circuit}.slope`) / slope - 1)).toBeLessThan(0.01);
    expect(Math.abs(numberOf(sweep, 'match') + p('lag_N') / p('area_m2'))).toBeLessThan(0.05 * BAR);
  });
  test('hysteresis 2·F_f/A and what the fluid lags behind, which is said: the less, the slower it is pressed', () => {
    const closed = (2 * p('friction_N')) / p('area_m2');
    const quick = pressed(null, slowly(1.8 * MM, 12)).find(({ kind }) => kind === 'sweep');
    const [slowest, quicker] = [sweep, quick].map((one) => numberOf(one, 'output.hysteresis') - closed);
    expect(slowest! / closed).toBeGreaterThan(0);
    expect(slowest! / closed).toBeLessThan(0.08);
    // Three times as fast lags three times as far.
    expect(quicker! / slowest!).toBeCloseTo(3, 0);
    // To the stop at 12 mm, at 0.6 mm/s: 20 s, but for what is no more than the gauge's own step at its ends.
    expect(sweep!.notes.map((note) => printSentence(note, 'metric'))).toEqual([
      expect.stringMatching(/^Pressed in (19|20)(\.\d)? s: by how much the pressure lags/),
    ]);
  });
});

test('what the valve draws is not taken for a pump that its switch turns: accumulators are told until it is first pressed', () => {
  const stretches = pressed(['gas-loss-2', 0.3], slowly(1.2 * MM, 15));
  expect(stretches.filter(({ kind }) => kind === 'cycles')).toEqual([]);
  const charges = stretches.filter(({ kind }) => kind === 'charge');
  expect(charges.map(({ to_s }) => to_s < 201)).toEqual([true, true]);
  // Handbook-models 8.7: 85 bar.
  expect(numberOf(charges[0], 'supply.pre-charge') / (85 * BAR)).toBeCloseTo(1, 1);
});

test.each([0, 1, 2, 3])(
  'a log in which the pedal is pressed after %d readings tells no accumulator, and breaks nothing',
  (readings) => {
    const time_s = Float64Array.from({ length: 400 }, (_, i) => i / 20);
    const on = (port: string, quantity: 'travel' | 'pressure', at: (i: number) => number) => ({
      name: port,
      port,
      quantity,
      values: time_s.map((_, i) => at(i)),
    });
    const travel = (i: number) => (i < readings ? 0 : 6 * MM);
    const trace = {
      time_s,
      channels: [
        on('treadle', 'travel', travel),
        on('supply', 'pressure', () => 150 * BAR),
        on('output', 'pressure', (i) => 5e9 * travel(i)),
      ],
    };
    const { stretches } = analyse(trace, { ...ROOM, unit: family.logged(family.typical) });
    expect(stretches.filter(({ kind }) => ['charge', 'cycles', 'standing'].includes(kind))).toEqual([]);
  },
);

describe('a pedal valve that is set to another travel at once', () => {
  test('a sound one settles, and that is said of both circuits', () => {
    const held = pressed(null, step).find(({ kind }) => kind === 'held')!;
    expect(held.results).toEqual([]);
    expect(held.notes.map((note) => printSentence(note, 'metric'))).toEqual([
      expect.stringMatching(/^Circuit 1: it settles/),
      expect.stringMatching(/^Circuit 2: it settles/),
    ]);
  });
  test.each([0.2, 0.3, 0.4])(
    'with its drilling plugged to severity %d it swings as ω₀ and ζ of what is left of it say',
    (severity) => {
      const p = of(withFault(family, healthy, ['drilling-plugged', severity]));
      const valve = { spring_NPerM: p('spring_NPerM'), area_m2: p('area_m2') };
      const circuit = {
        flowGain_m2PerS: p('flowGain_m2PerS'),
        line_PaSPerM3: p('line_PaSPerM3'),
        give_m3PerPa: p('give_m3PerPa'),
      };
      const drilling = { diameter_m: p('drilling_m'), length_m: p('drillingLength_m') };
      const { ratio, frequency_Hz } = settlingOf(
        valve,
        circuit,
        drilling,
        viscosity_PaS(HYDRAULIC_FLUIDS.vg46, 313.15),
      );
      const held = pressed(['drilling-plugged', severity], step).filter(({ kind }) => kind === 'held');
      const last = held.at(-1);
      const damped_Hz = frequency_Hz * Math.sqrt(1 - ratio ** 2);
      for (const circuit of ['output', 'output-2']) {
        expect(Math.abs(numberOf(last, `${circuit}.swing-damping`) / ratio - 1)).toBeLessThan(0.05);
        expect(Math.abs(numberOf(last, `${circuit}.swing-frequency`) / damped_Hz - 1)).toBeLessThan(0.01);
      }
    },
  );
  test('one that hunts through its sweep tells no slope and no hysteresis, and says why', () => {
    const sweep = pressed(['drilling-plugged', 0.7], slowly(1.2 * MM, 15)).find(
      ({ kind }) => kind === 'sweep',
    )!;
    for (const id of ['output.slope', 'output.hysteresis', 'match']) {
      const found = sweep.results.find((one) => one.id === id)!.estimate;
      expect(found.told ? null : found.why.text).toMatch(/does not rise and fall evenly/);
    }
  });
});
