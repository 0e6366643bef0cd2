/** @jest-environment node */
import { withFault } from '../../contract/family';
import { readingOf } from '../../model/vectors';
import { hydraulicVehicle as family, type HydraulicVehicleProfile } from '../hydraulic-vehicle';

const BAR = 1e5;
const MM = 1e-3;
/** Handbook-models 8.4: A_mc 6.42 cm², V₀ 1.2 cc, c 4e−13. */
const typical = family.typical as HydraulicVehicleProfile;
const profile: HydraulicVehicleProfile = {
  ...typical,
  unit: { ...typical.unit, friction_N: 0, shell_m3: 25e-6 },
  load: {
    ...typical.load,
    masterBore_m: Math.sqrt((4 * 6.42e-4) / Math.PI),
    takeUp_m3: 1.2e-6,
    stiffness_m3PerPa: 4e-13,
    freeTravel_m: 0,
  },
};
const { values } = family.healthy(profile);
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15, fluid_K: 353.15, elapsed_s: 0, applications: 0 };
const shows = (reading: string, inputs: object, parameters: readonly number[] = values) =>
  readingOf(family, parameters, { ...ROOM, pedal_N: 0, supply_Pa: 100 * BAR, ...inputs }, reading);
const put = (id: string, value: number) =>
  values.with(
    family.parameters.findIndex((one) => one.id === id),
    value,
  );

describe('handbook-models 8.4, worked example', () => {
  test('at 100 bar and 150 N of the pedal 46.7 bar, unassisted 6.5; runout at 376 N', () => {
    expect(shows('load.pressure', { pedal_N: 150 }) / BAR).toBeCloseTo(46.7, 1);
    expect(shows('load.pressure', { pedal_N: 150, supply_Pa: 0 }) / BAR).toBeCloseTo(6.5, 1);
    expect(shows('runoutPedal', {})).toBeCloseTo(376, 0);
  });
  test('as the engine starts the pedal falls by 10.0 mm and pushes back by 4.0', () => {
    expect(shows('drop', {}, put('test_N', 150)) / MM).toBeCloseTo(10, 1);
    expect(shows('back', {}) / MM).toBeCloseTo(4, 6);
  });
  test('reserve of 25 cc, 200 N, from 90 bar: of 45 bar gas 62.3, 52.5, 43.5, then the foot alone', () => {
    const outputs = [1, 2, 3, 4].map(
      (applications) => shows('load.pressure', { pedal_N: 200, supply_Pa: 0, applications }) / BAR,
    );
    // Fast there; here the gas stands for three seconds held and seven let go, and warms meanwhile: each a little more.
    [62.3, 52.5, 43.5].forEach((expected, i) =>
      expect(Math.abs(outputs[i]! / expected - 1.06)).toBeLessThan(0.07),
    );
    expect(outputs[3]!).toBeLessThan(shows('load.pressure', { pedal_N: 200 }) / BAR / 2);
  });
  test('of 20 bar gas more of them, each weaker', () => {
    const low = put('preCharge_Pa', 20 * BAR);
    const at = (applications: number, of: readonly number[]) =>
      shows('load.pressure', { pedal_N: 200, supply_Pa: 0, applications }, of);
    expect(at(1, low)).toBeLessThan(at(1, values));
    expect(at(6, low)).toBeGreaterThan(1.1 * shows('load.pressure', { pedal_N: 200, supply_Pa: 0 }));
  });
  test('an hour at 25 °C with k 1e−17 leaves 63.9 bar of 90: the first application by that', () => {
    const at25 = { temperature_K: 298.15, pedal_N: 200, supply_Pa: 0, applications: 1 };
    const leaking = put('leak_m3PerS', (1e-17 * 100 * BAR) / 9.1e-3);
    const after = shows('load.pressure', { ...at25, elapsed_s: 3600 }, leaking);
    const from = (full: number) =>
      shows(
        'load.pressure',
        { ...at25 },
        leaking.with(
          family.parameters.findIndex(({ id }) => id === 'full_Pa'),
          full,
        ),
      );
    expect(Math.abs(after / from(63.9 * BAR) - 1)).toBeLessThan(0.02);
  });
});

describe('an accumulator is charged no further than its pump goes', () => {
  const place = (id: string) => family.parameters.findIndex((one) => one.id === id);
  const first = (parameters: readonly number[]) =>
    shows('load.pressure', { pedal_N: 200, supply_Pa: 0, applications: 1 }, parameters);
  test.each([
    ['relief-open', 0.5],
    ['belt-slips', 0.8],
    ['pump-low', 0.8],
  ] as const)('with %s: as if it were full at the shut-off pressure', (fault, severity) => {
    const weak = withFault(family, values, [fault, severity]);
    const shut_Pa = shows('source.shut', {}, weak);
    expect(shut_Pa).toBeLessThan(0.9 * typical.unit.full_Pa);
    const fuller = values.with(place('full_Pa'), shut_Pa);
    expect(Math.abs(first(weak) / first(fuller) - 1)).toBeLessThan(0.01);
    expect(first(weak)).toBeLessThan(first(values));
  });
  test('what goes past the power piston is not there to charge it', () => {
    const leaking = withFault(family, values, ['piston-leak', 1]);
    // 4e−13·p/μ is all of 7.5 L/min at 28 bar: below the gas, nothing is stored.
    const alone = shows('load.pressure', { pedal_N: 200, supply_Pa: 0 }, leaking);
    expect(first(leaking)).toBeCloseTo(alone, 0);
  });
});

describe('the pump, handbook-models P.3', () => {
  const litres = (parameters: readonly number[]) => shows('source.flow', {}, parameters) * 60_000;
  test('7.36 L/min at 50 bar, shut 104; a leak five times as large: 3.67 and 90', () => {
    expect(litres(values)).toBeCloseTo(7.36, 1);
    expect(Math.abs(shows('source.shut', {}) / BAR / 104 - 1)).toBeLessThan(0.01);
    const worn = withFault(family, values, ['pump-low', Math.log(2) / Math.log(4.5)]);
    expect(litres(worn)).toBeCloseTo(3.67, 0);
    expect(Math.abs(shows('source.shut', {}, worn) / BAR / 90 - 1)).toBeLessThan(0.03);
  });
  test('a belt that slips keeps the flow at 50 bar and not the shut-off pressure', () => {
    const slipping = withFault(family, values, ['belt-slips', 1]);
    expect(litres(slipping)).toBe(litres(values));
    // 2π·0.85·9 N·m / 9.6 cc.
    expect(shows('source.shut', {}, slipping) / BAR).toBeCloseTo((2 * Math.PI * 0.85 * 9) / 9.6e-6 / BAR, 0);
  });
});

test('past the power piston: hot at idle it makes less, where the pump alone is as it should be', () => {
  const leaking = withFault(family, values, ['piston-leak', 1]);
  expect(shows('source.shut', {}, leaking)).toBe(shows('source.shut', {}));
  expect(shows('load.pressure', { pedal_N: 150 }, leaking)).toBeLessThan(
    0.9 * shows('load.pressure', { pedal_N: 150 }),
  );
});

test('where the pump makes less than the spool asks for, nothing pushes the pedal back', () => {
  // 300 N + 5·(4·200 − 60) = 4 000 N asked for; of 40 bar 620 + 40e5·6.2e−4 = 3 100 N come: a fifth short.
  const weak = withFault(family, values, ['relief-open', 0.5]);
  expect(shows('source.shut', {}, weak)).toBeLessThan(50 * BAR);
  expect(shows('back', { supply_Pa: shows('source.shut', {}, weak) }, weak)).toBe(0);
  expect(shows('back', {}) / MM).toBeCloseTo(4, 6);
});

test('let go with a return that keeps the brake on, the pressure is never gone', () => {
  expect(shows('release', { pedal_N: 100 }, withFault(family, values, ['return-restricted', 1]))).toBe(60);
});

test('a narrow return: released slowly, and it holds itself on', () => {
  const narrow = withFault(family, values, ['return-restricted', 1]);
  expect(shows('load.pressure', {})).toBe(0);
  expect(shows('load.pressure', {}, narrow) / BAR).toBeGreaterThan(3);
  expect(shows('release', { pedal_N: 100 })).toBeLessThan(0.5);
  expect(shows('release', { pedal_N: 100 }, narrow)).toBeGreaterThan(0.5);
});
