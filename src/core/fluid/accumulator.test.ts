/** @jest-environment node */
import fc from 'fast-check';
import { flickUp_Pa, preChargeOf_Pa, Vessel, type Charge } from './accumulator';
import { filledTo, stoodLeaking, timeToFall_s, timeUntilFallen_s } from './charging';
import { HYDRAULIC_FLUIDS, viscosity_PaS } from './hydraulic-fluid';
import { gasEnergy_J, gasHeatCapacity_JPerK, gasPressure_Pa, IDEAL_NITROGEN } from './nitrogen';

const BAR = 1e5;
const CC = 1e-6;
const around = { barometer_Pa: 101_325, temperature_K: 293.15 };
/** Handbook-models P.1: 0.30 L, 65 bar, 20 °C, τ 20 s. */
const small = { shell_m3: 0.3e-3, preCharge_Pa: 65 * BAR, settling_s: 20 };
const vessel = new Vessel(small, around);
const bySix = () => 6 * CC;

describe('the worked example of handbook-models P.1', () => {
  const { charge, time_s } = filledTo(vessel, vessel.empty, 150 * BAR, bySix);
  test('pumped at 6 cc/s to 150 bar: 22.3 s, 351.6 K, 133.6 cc', () => {
    expect(time_s).toBeCloseTo(22.3, 1);
    expect(Math.abs(charge.temperature_K - 351.6)).toBeLessThan(0.3);
    expect(vessel.fluid_m3(charge) / CC).toBeCloseTo(133.6, 1);
    expect(vessel.gauge_Pa(charge) / BAR).toBeCloseTo(150, 3);
  });
  test('on the way it passes 85 bar when a charge up to there would be over, and is the same charge for it', () => {
    const past = filledTo(vessel, vessel.empty, 150 * BAR, bySix, 85 * BAR);
    expect({ charge: past.charge, time_s: past.time_s }).toEqual({ charge, time_s });
    const to85 = filledTo(vessel, vessel.empty, 85 * BAR, bySix).time_s;
    expect(past.passed_s).toBeCloseTo(to85, 4);
    const passed = (bar: number) => filledTo(vessel, vessel.empty, 150 * BAR, bySix, bar * BAR).passed_s;
    expect([passed(60), passed(150), passed(170)]).toEqual([0, Infinity, Infinity]);
  });
  test('80 s later 120.1 bar, settled 119.5, with nothing lost', () => {
    expect(vessel.gauge_Pa(vessel.stood(charge, 80)) / BAR).toBeCloseTo(120.1, 1);
    expect(vessel.gauge_Pa(vessel.stood(charge, 1e4)) / BAR).toBeCloseTo(119.5, 1);
  });
  test('fluid at 150 bar: slowly 165.4, fast 122.0 cc', () => {
    expect(vessel.fluid_m3(vessel.settledAt(150 * BAR)) / CC).toBeCloseTo(165.4, 1);
    expect(vessel.fluid_m3(vessel.fastTo(vessel.empty, 150 * BAR)) / CC).toBeCloseTo(122, 1);
  });
  test('work done on the gas, 1 325 J, is what it holds more and what the shell took: within 0.5 %', () => {
    // ∫p_abs·dV and n·c_v·∫(T − T_w)/τ·dt by the trapezium over the charge, a fiftieth of a bar at a time.
    let [work_J, given_J] = [0, 0];
    let before: Charge = vessel.empty;
    let before_Pa = vessel.flickUp_Pa;
    for (let bar = Math.ceil(before_Pa / BAR + 0.5); bar <= 150; bar += 0.5) {
      const now = filledTo(vessel, vessel.empty, bar * BAR, bySix).charge;
      const fluid_m3 = before.gas_m3 - now.gas_m3;
      work_J += ((before_Pa + bar * BAR) / 2 + around.barometer_Pa) * fluid_m3;
      const warm = [before, now].map(
        (at) => gasHeatCapacity_JPerK(vessel.state(at)) * (at.temperature_K - around.temperature_K),
      );
      given_J +=
        ((vessel.amount_kmol * (warm[0]! + warm[1]!)) / 2 / small.settling_s) * (fluid_m3 / (6 * CC));
      [before, before_Pa] = [now, bar * BAR];
    }
    expect(Math.abs(work_J / 1325 - 1)).toBeLessThan(0.005);
    const kept_J =
      vessel.amount_kmol * (gasEnergy_J(vessel.state(charge)) - gasEnergy_J(vessel.state(vessel.empty)));
    expect(Math.abs((kept_J + given_J) / work_J - 1)).toBeLessThan(0.005);
  });
});

describe('limits', () => {
  const to_Pa = 150 * BAR;
  const volumeBy = (flow_m3PerS: number) =>
    vessel.fluid_m3(filledTo(vessel, vessel.empty, to_Pa, () => flow_m3PerS).charge) / CC;
  test('pumped slowly it takes up what settled gas does, pumped fast what gas does that gives no heat off', () => {
    expect(volumeBy(0.02 * CC) / (vessel.fluid_m3(vessel.settledAt(to_Pa)) / CC)).toBeCloseTo(1, 2);
    expect(volumeBy(2000 * CC) / (vessel.fluid_m3(vessel.fastTo(vessel.empty, to_Pa)) / CC)).toBeCloseTo(
      1,
      2,
    );
  });
  test('the faster it is pumped, the less fluid is in it at a pressure', () => {
    const volumes = [0.5, 2, 6, 20, 100].map((cc) => volumeBy(cc * CC));
    expect([...volumes].sort((a, b) => b - a)).toEqual(volumes);
  });
  test('a pump that gives out before the pressure never gets there', () => {
    // Nothing at 128 bar, in a straight line from 8 cc/s.
    const { time_s, charge } = filledTo(
      vessel,
      vessel.empty,
      to_Pa,
      (p) => 8 * CC * Math.max(0, 1 - p / (128 * BAR)),
    );
    expect(time_s).toBe(Infinity);
    expect(vessel.gauge_Pa(charge) / BAR).toBeGreaterThan(126);
    expect(vessel.gauge_Pa(charge) / BAR).toBeLessThanOrEqual(128);
  });
  test('a pump that gives out near the pressure asked for: some charge, and a time or for ever, never neither', () => {
    const ends = fc.double({ min: -3, max: 3, noNaN: true });
    const gives = fc.double({ min: 0.02, max: 10, noNaN: true });
    fc.assert(
      fc.property(ends, gives, fc.double({ min: 70, max: 149, noNaN: true }), (beyond, cc, from_bar) => {
        // What it gives falls evenly, to nothing so many bar beyond the pressure asked for, and below nothing behind that.
        const flow = (pressure_Pa: number) => ((150 + beyond) * BAR - pressure_Pa) * ((cc * CC) / (80 * BAR));
        const filled = filledTo(vessel, vessel.settledAt(from_bar * BAR), 150 * BAR, flow);
        expect(filled.time_s).toBeGreaterThanOrEqual(0);
        expect(vessel.gauge_Pa(filled.charge) / BAR).toBeGreaterThan(from_bar - 0.01);
        expect(vessel.gauge_Pa(filled.charge) / BAR).toBeLessThan(150.01);
        if (beyond < 0) expect(filled.time_s).toBe(Infinity);
      }),
      { numRuns: 400 },
    );
  });
  test('an ideal gas would have said 24.2 s, 127.1 bar after 80 s and 126.7 settled: real gas matters', () => {
    const ideal = new Vessel(small, around, IDEAL_NITROGEN);
    const { time_s, charge } = filledTo(ideal, ideal.empty, to_Pa, bySix);
    expect(time_s).toBeCloseTo(24.2, 1);
    expect(ideal.gauge_Pa(ideal.stood(charge, 80)) / BAR).toBeCloseTo(127.1, 1);
    expect(ideal.gauge_Pa(ideal.stood(charge, 1e4)) / BAR).toBeCloseTo(126.7, 1);
    // p·V^1.4 where no heat is given off.
    const settled = ideal.settledAt(70 * BAR);
    const pressed = (70 * BAR + around.barometer_Pa) / (to_Pa + around.barometer_Pa);
    expect(ideal.fastTo(settled, to_Pa).gas_m3 / settled.gas_m3).toBeCloseTo(pressed ** (1 / 1.4), 6);
  });
});

describe('flick-up', () => {
  test('at 20 °C it is the pre-charge; elsewhere the isochore, which p/T alone misses by −1.2 to +0.9 bar', () => {
    expect(flickUp_Pa(small, around) / BAR).toBeCloseTo(65, 6);
    const off = ([263.15, 323.15] as const).map((temperature_K) => {
      const read = flickUp_Pa(small, { ...around, temperature_K });
      const byRatio = ((read + around.barometer_Pa) * 293.15) / temperature_K - around.barometer_Pa;
      return (byRatio - 65 * BAR) / BAR;
    });
    expect(off[0]).toBeCloseTo(-1.2, 1);
    expect(off[1]).toBeCloseTo(0.9, 1);
  });
  test('what is read at any temperature goes back to the pre-charge at 20 °C', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 120, noNaN: true }),
        fc.double({ min: 240, max: 330, noNaN: true }),
        (bar, temperature_K) => {
          const at = { ...around, temperature_K };
          const read = flickUp_Pa({ ...small, preCharge_Pa: bar * BAR }, at);
          expect(preChargeOf_Pa(read, at) / BAR).toBeCloseTo(bar, 6);
        },
      ),
    );
  });
  test('with no fluid in it a gauge shows nothing, with the first drop the gas', () => {
    expect(vessel.gauge_Pa(vessel.empty)).toBe(0);
    expect(vessel.gauge_Pa({ ...vessel.empty, gas_m3: small.shell_m3 * (1 - 1e-9) }) / BAR).toBeCloseTo(
      65,
      4,
    );
    expect(vessel.settledAt(30 * BAR)).toEqual(vessel.empty);
  });
});

/** Handbook-models P.2 and 8.6: 0.40 L, 65 bar, τ 20 s, k 4.6e−17 m³, mineral. */
const large = { shell_m3: 0.4e-3, preCharge_Pa: 65 * BAR, settling_s: 20 };
const leakAt = (temperature_K: number) => {
  const viscosity = viscosity_PaS(HYDRAULIC_FLUIDS.mineral, temperature_K);
  return (pressure_Pa: number) => (4.6e-17 * pressure_Pa) / viscosity;
};
const at = (celsius: number) => new Vessel(large, { ...around, temperature_K: 273.15 + celsius });

describe('standing, handbook-models 8.6', () => {
  test.each([
    [0, 2.8],
    [18, 1.7],
    [40, 1.0],
  ])('from 135 settled to the lamp at 85 at %d °C: %d h', (celsius, hours) => {
    const found = timeToFall_s(at(celsius), 135 * BAR, 85 * BAR, leakAt(273.15 + celsius)) / 3600;
    expect(Math.abs(found - hours)).toBeLessThan(0.06);
  });
  test('one hour at 18 °C leaves 97.7 bar', () => {
    const of = at(18);
    const left = stoodLeaking(of, of.settledAt(135 * BAR), 3600, leakAt(291.15));
    expect(Math.abs(of.gauge_Pa(left) / BAR / 97.7 - 1)).toBeLessThan(0.01);
  });
  test('the time in which it falls and what is left after that time are one', () => {
    const of = at(18);
    const time_s = timeToFall_s(of, 135 * BAR, 90 * BAR, leakAt(291.15));
    const left = stoodLeaking(of, of.settledAt(135 * BAR), time_s, leakAt(291.15));
    expect(Math.abs(of.gauge_Pa(left) / (90 * BAR) - 1)).toBeLessThan(1e-3);
  });
  test('warm gas that nothing leaves cools as in the closed form, and what leaks adds to that', () => {
    const warm = { gas_m3: 0.22e-3, temperature_K: 350 };
    const [tight, leaks] = [() => 0, leakAt(291.15)].map((leak) => stoodLeaking(at(18), warm, 60, leak));
    expect(at(18).gauge_Pa(tight!)).toBeCloseTo(at(18).gauge_Pa(at(18).stood(warm, 60)), 3);
    expect(at(18).gauge_Pa(leaks!)).toBeLessThan(at(18).gauge_Pa(tight!));
  });
  test.each([
    ['settled long before', 1, 3600],
    ['still cooling', 40, 400],
    ['by cooling alone', 0, 200],
  ])(
    'from hot gas, %s: what is left after the time in which it falls is the pressure',
    (_how, times, most_s) => {
      const of = at(18);
      const hot = filledTo(of, of.empty, 150 * BAR, bySix).charge;
      const leak = (pressure_Pa: number) => times * leakAt(291.15)(pressure_Pa);
      const to_Pa = times === 0 ? 125 * BAR : 110 * BAR;
      const time_s = timeUntilFallen_s(of, hot, to_Pa, leak, most_s);
      expect(time_s).toBeLessThan(most_s);
      expect(Math.abs(of.gauge_Pa(stoodLeaking(of, hot, time_s, leak)) / to_Pa - 1)).toBeLessThan(0.004);
    },
  );
  test('no longer than it is watched, and no time where it stands so low already', () => {
    const of = at(18);
    expect(timeUntilFallen_s(of, of.settledAt(130 * BAR), 90 * BAR, leakAt(291.15), 60)).toBe(60);
    expect(timeUntilFallen_s(of, of.settledAt(80 * BAR), 90 * BAR, leakAt(291.15), 60)).toBe(0);
  });
  test('a fall of settled gas speaks of the leak behind it', () => {
    const of = at(18);
    const [before, after] = [1200, 1260].map((time_s) =>
      stoodLeaking(of, of.settledAt(130 * BAR), time_s, leakAt(291.15)),
    );
    const fall = (of.gauge_Pa(before!) - of.gauge_Pa(after!)) / 60;
    const middle_Pa = (of.gauge_Pa(before!) + of.gauge_Pa(after!)) / 2;
    expect(of.leak_m3PerS(of.settledAt(middle_Pa), fall) / leakAt(291.15)(middle_Pa)).toBeCloseTo(1, 2);
  });
  test('a vessel that runs empty shows nothing', () => {
    const of = at(18);
    const left = stoodLeaking(of, of.settledAt(70 * BAR), 24 * 3600, leakAt(291.15));
    expect(left.gas_m3).toBe(large.shell_m3);
    expect(of.gauge_Pa(left)).toBe(0);
  });
});

test('stages of a discharge with no heat given: what is taken out and put back is where it was', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 80, max: 220, noNaN: true }),
      fc.double({ min: 70, max: 200, noNaN: true }),
      (from, to) => {
        const start = vessel.settledAt(from * BAR);
        const there = vessel.fastTo(start, to * BAR);
        expect(gasPressure_Pa(vessel.state(vessel.fastTo(there, from * BAR)))).toBeCloseTo(
          from * BAR + around.barometer_Pa,
          -1,
        );
      },
    ),
  );
});
