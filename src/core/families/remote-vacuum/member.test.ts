import fc from 'fast-check';
import { healthyBand } from '../../procedure/predict';
import { inputVector, placeOf, reader, toVector } from '../../model/vectors';
import { remoteVacuumProfile } from './profile';
import { remoteVacuum } from './index';
import type { ReadingId } from './member';
import { typical } from './typical';

const BAR = 1e5;
const INHG = 3386.389;
const { inputs, parameters, readings } = remoteVacuum;
const unit = remoteVacuum.healthy(typical).values;

const at = (reading: ReadingId, input_Pa: number, supply_Pa: number, who = unit, elapsed_s = 0) =>
  remoteVacuum.steady(
    who,
    inputVector(inputs, { input_Pa, supply_Pa, elapsed_s, barometer_Pa: 101_325, temperature_K: 293.15 }),
  )[placeOf(readings, reading)]!;

describe('the handbook’s example, worked by hand', () => {
  // A_d = π/4·0.230² = 0.0415476 m²; A_slave = π/4·0.0206² = 3.33292e-4 m²; A_rod = π/4·0.006² = 2.82743e-5 m²;
  // k = 1 − 0.0848326 = 0.9151674.
  // 20 inHg = 67 727.78 Pa: lift = (67 727.78·0.0415476 − 110)/3.33292e-4 = 81.1274 bar;
  //   runout in = 81.1274/(3.6 − 0.9151674) = 30.217 bar. 28 bar is below it: 3.6·28 = 100.8 bar.
  // 15 inHg = 50 795.84 Pa: lift = (50 795.84·0.0415476 − 110)/3.33292e-4 = 60.0208 bar;
  //   runout in = 22.355 bar; 28 bar in: 0.9151674·28 + 60.0208 = 85.645 bar.
  test('20 inHg: 100.8 bar out of 28 in, runout at 30.2', () => {
    expect(at('output', 28 * BAR, 20 * INHG) / BAR).toBeCloseTo(100.8, 6);
    expect(at('runoutInput', 0, 20 * INHG) / BAR).toBeCloseTo(30.217, 2);
  });
  test('15 inHg: 85.7 bar (85.645) out of 28 in, runout at 22.4, from a healthy unit', () => {
    expect(at('output', 28 * BAR, 15 * INHG) / BAR).toBeCloseTo(85.645, 2);
    expect(at('runoutInput', 0, 15 * INHG) / BAR).toBeCloseTo(22.355, 2);
  });
  test('activation reads the supply at rest and zero from runout on', () => {
    expect(at('activation', 0, 20 * INHG)).toBeCloseTo(20 * INHG, 6);
    expect(at('activation', 31 * BAR, 20 * INHG)).toBe(0);
    // At 20 bar in, 72 out: used = (72e5·3.33292e-4 − 20e5·0.9151674·3.33292e-4 + 110)/0.0415476 = 45 721 Pa. What a
    // healthy unit leaks more while it is applied costs the bench's supply some 4 Pa.
    expect(Math.abs(at('activation', 20 * BAR, 20 * INHG) - (20 * INHG - 45_721))).toBeLessThan(10);
  });
  // The valve asks for the same 45 721 Pa; a diaphragm of 0.675·0.0415476 m² pushes
  // (45 721·0.0280446 − 110)/3.33292e-4 = 35.17 bar, and 0.9151674·20 = 18.30 bar comes from the input: 53.5 bar.
  test('a diaphragm 32.5 % too small: 53.5 bar out of 20 in, 6.5 inHg at the activation port, runout where it was', () => {
    const small = unit.with(placeOf(parameters, 'effectiveArea_m2'), 0.675 * unit[0]!);
    expect(at('output', 20 * BAR, 20 * INHG, small) / BAR).toBeCloseTo(53.47, 1);
    expect(at('activation', 20 * BAR, 20 * INHG, small) / INHG).toBeCloseTo(6.5, 1);
    expect(at('runoutInput', 0, 20 * INHG, small)).toBeCloseTo(at('runoutInput', 0, 20 * INHG), 6);
    // Its rise with the input is smaller: 0.915 + 2.685·0.675.
    const slope =
      (at('output', 20 * BAR, 20 * INHG, small) - at('output', 12 * BAR, 20 * INHG, small)) / (8 * BAR);
    expect(slope).toBeCloseTo(0.9151674 + 2.6848326 * 0.675, 4);
  });
  test('a passage between the sides: nothing lost released, the supply sags and activation stays applied', () => {
    const torn = unit.with(placeOf(parameters, 'tear_m3PerSPa'), 1e-8);
    const both = (reading: ReadingId, input_Pa: number, s = 0) =>
      [unit, torn].map((who) => at(reading, input_Pa, 20 * INHG, who, s)) as [number, number];
    const [sound, lost] = both('supplyLeftReleased', 0, 60);
    expect(lost).toBe(sound);
    // C_t·p_atm·100 046/V = 1e-8·101 325·100 046/0.004 = 25 kPa/s: gone within the minute.
    expect(both('supplyLeftApplied', 20 * BAR, 60)[1]).toBeLessThan(0.01 * 20 * INHG);
    expect(both('activation', 0)[1]).toBe(both('activation', 0)[0]);
    // Full: air port 5.60e-8, passage 1e-8 choked: p_w near p_atm·(1 − (C_t/2C_a)²) = 0.992: 0.24 inHg stay.
    expect(both('fullActivation', 0)[1] / INHG).toBeCloseTo(0.24, 1);
    expect(both('supplyApplied', 28 * BAR)[1]).toBeLessThan(20 * INHG - 100);
    expect(both('runoutInput', 0)[1]).toBeLessThan(both('runoutInput', 0)[0]);
  });
  // A poppet passes air at rest, and 0.65 of it applied, when only the vacuum side is behind it. Choked, at 293.15 K, C·K·p_atm with
  // K = 100 046: 1e-8·100 046·101 325 = 101.37 at rest, 65.89 Pa·m³/s applied. A pump of 4e-3 m³/s that reaches 20 kPa absolute:
  //   at rest its tank is at 20 000 + 101.37/4e-3 = 45 343; the hose of 1e-7 has c = 10 132.5 and adds c²/4p = 566: 45 909 Pa;
  //   applied 20 000 + 16 473 = 36 473; c = 6 586 and adds 297: 36 770 Pa.
  test('a poppet that leaks pulls the supply down at rest: applied it rises, from 55.4 to 64.6 kPa', () => {
    const bled = unit
      .with(placeOf(parameters, 'leak_m3PerSPa'), 1e-8)
      .with(placeOf(parameters, 'appliedMore_m3PerSPa'), 0);
    const gauge_Pa = 101_325 - 45_909;
    expect(Math.abs(at('supplyAtRest', 0, gauge_Pa, bled) - gauge_Pa)).toBeLessThan(1);
    expect(Math.abs(at('supplyApplied', 20 * BAR, gauge_Pa, bled) - (101_325 - 36_770))).toBeLessThan(10);
    // Runout is as far up as what there is then allows: (64 555·0.0415476 − 110)/3.33292e-4/2.6848326 = 28.744 bar.
    expect(at('runoutInput', 0, gauge_Pa, bled) / BAR).toBeCloseTo(28.744, 3);
  });
  test('no vacuum: out = in', () => expect(at('output', 28 * BAR, 0)).toBe(28 * BAR));
  test('below crack: out = in', () => expect(at('output', 2 * BAR, 20 * INHG)).toBe(2 * BAR));
  test('the healthy band is B ± 10 % below the knee', () => {
    const band = healthyBand((p) => at('output', 20 * BAR, 20 * INHG, [...p]), remoteVacuum.healthy(typical));
    expect(band.low / BAR).toBeCloseTo(64.8, 6);
    expect(band.high / BAR).toBeCloseTo(79.2, 6);
  });
  test('a leak at a quarter of its limit costs a quarter of the limit at sea level', () => {
    const lost = 20 * INHG - at('supplyLeftReleased', 0, 20 * INHG, unit, 60);
    expect(lost / INHG).toBeCloseTo(0.25, 6);
  });
});

describe('the twin', () => {
  const pressure = fc.double({ min: 0, max: 40 * BAR, noNaN: true });
  const vacuum = fc.double({ min: 0, max: 27 * INHG, noNaN: true });
  test('more input never gives less output, nor does more vacuum', () => {
    fc.assert(
      fc.property(pressure, vacuum, fc.double({ min: 0, max: 1e5, noNaN: true }), (input, supply, more) => {
        const here = at('output', input, supply);
        return (
          at('output', input + more, supply) >= here - 1e-6 &&
          at('output', input, supply + more / 10) >= here - 1e-6
        );
      }),
    );
  });
  test('output is never below input, activation never above the supply nor below zero', () => {
    fc.assert(
      fc.property(pressure, vacuum, (input, supply) => {
        const activation = at('activation', input, supply);
        return at('output', input, supply) >= input && activation >= 0 && activation <= supply + 1e-6;
      }),
    );
  });
  test('at the runout it predicts, both branches meet', () => {
    fc.assert(
      fc.property(fc.double({ min: 10, max: 27, noNaN: true }), (inHg) => {
        const input = at('runoutInput', 0, inHg * INHG);
        return Math.abs(at('output', input, inHg * INHG) - at('runoutOutput', 0, inHg * INHG)) < 1;
      }),
    );
  });
  test('parameters by name come back in declared order', () => {
    expect(toVector(parameters, reader(parameters)(unit))).toEqual([...unit]);
  });
});

describe('profile', () => {
  const messages = (change: object) =>
    remoteVacuumProfile
      .safeParse({ ...typical, ...change })
      .error?.issues.map(({ path, message }) => [path.join('.'), message]) ?? [];
  test.each([
    [{ suspension: 'air' }, 'suspension', /not modelled yet/],
    [{ rodDiameter_m: 0.025 }, 'rodDiameter_m', /thinner than the slave bore/],
    [{ boostRatio: Number.NaN }, 'boostRatio', /number is needed/],
    [{ bypassInputs_Pa: [20 * BAR, 10 * BAR, 30 * BAR] }, 'bypassInputs_Pa', /rising order/],
    [{ bypassInputs_Pa: [20 * BAR, 30 * BAR] }, 'bypassInputs_Pa', /at least 3/],
    [{ proof_Pa: 60 * BAR }, 'fullInput_Pa', /proof limit/],
    [{ name: '  ' }, 'name', /Give the profile a name/],
  ])('%j is refused at the field', (change, path, message) => {
    const found = messages(change).find(([where]) => where === path);
    expect(found?.[1]).toMatch(message);
  });
  test('nothing physical is assumed: a missing dimension is refused', () => {
    expect(messages({ slaveBore_m: undefined }).map(([path]) => path)).toContain('slaveBore_m');
  });
});
