/** @jest-environment node */
import { withFault } from '../../contract/family';
import type { Hands } from '../../model/motion';
import { Running } from '../../model/running';
import { readingOf } from '../../model/vectors';
import { INHG_PA } from '../../quantities/units';
import { pedalBooster as family } from './bench';
import type { PedalVacuumProfile } from './profile';

const profile = family.typical as PedalVacuumProfile;
const healthy = family.healthy(profile).values;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const SUPPLY_PA = 20 * INHG_PA;
const port = (id: string) => family.ports.findIndex((one) => one.id === id);
const [OUTPUT, SUPPLY] = [port('output'), port('supply')];

/** A booster on the bench, its cock open and its pump running until nothing changes. */
function onBench(parameters: readonly number[]) {
  const bench = new Running(
    family.motion!,
    parameters,
    { ...ROOM, supply_Pa: SUPPLY_PA },
    family.ports.length,
  );
  const after = (change: Hands, seconds: number) => {
    bench.set(change);
    expect(bench.advance(seconds).ok).toBe(true);
    return bench.read();
  };
  after({ valve: 'open' }, 30);
  return after;
}

const steady = (parameters: readonly number[], pedal_N: number, supply_Pa: number) =>
  readingOf(
    family,
    parameters,
    { ...ROOM, pedal_N, supply_Pa, elapsed_s: 0, applications: 0 },
    'load.pressure',
  );

test.each([
  // Of no severity it is sound.
  ['torn-diaphragm', 0],
  ['torn-diaphragm', 0.6],
  ['hardened-diaphragm', 0.8],
  ['vacuum-seat', 0.6],
] as const)(
  'with %s %d, pressed slowly: what the closed form makes at the vacuum that its gauge shows',
  (fault, severity) => {
    const known = family.faults.some(({ id }) => id === fault);
    const parameters = known ? withFault(family, healthy, [fault, severity]) : healthy;
    const after = onBench(parameters);
    const rest_Pa = after({}, 1)[SUPPLY]!;
    for (const pedal_N of [profile.light_N, profile.heavy_N]) {
      const shown = after({ pedal_N, press_NPerS: 40 }, pedal_N / 40 + 20);
      expect(Math.abs(shown[OUTPUT]! / steady(parameters, pedal_N, rest_Pa) - 1)).toBeLessThan(0.01);
    }
    expect(after({ pedal_N: 0, press_NPerS: 1000 }, 10)[OUTPUT]).toBeLessThan(3e5);
  },
);

test('vented it works by the foot alone', () => {
  const after = onBench(healthy);
  after({ valve: 'vented' }, 20);
  const shown = after({ pedal_N: profile.heavy_N, press_NPerS: 40 }, 30);
  expect(shown[SUPPLY]).toBeLessThan(50);
  expect(Math.abs(shown[OUTPUT]! / steady(healthy, profile.heavy_N, 0) - 1)).toBeLessThan(0.01);
});

test('shut, a tight one keeps its vacuum, and one that leaks at its seat loses it', () => {
  const lost = (parameters: readonly number[]) => {
    const after = onBench(parameters);
    const from = after({ valve: 'shut' }, 1)[SUPPLY]!;
    return from - after({}, 60)[SUPPLY]!;
  };
  expect(lost(healthy)).toBeLessThan(profile.limits.decay_PaPerS.value * 60);
  expect(lost(withFault(family, healthy, ['air-seat', 0.7]))).toBeGreaterThan(
    profile.limits.decay_PaPerS.value * 60,
  );
});
