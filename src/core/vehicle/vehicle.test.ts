import fc from 'fast-check';
import { axleLoads_N, locksFirst } from './axle-loads';
import { axleForces_N, axleGain_NPerPa, pressureFor_Pa, unassistedPedal_N } from './brake-force';
import { FAILED_ASSIST, failedAssistLimit_m, motionEnergy_J, stoppingDistance_m } from './stopping';

const BAR = 1e5;
const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('stopping', () => {
  const stop = { speed_mPerS: 100 / 3.6, deceleration_mPerS2: 2.44, delay_s: 0, rise_s: 0 };

  test('100 km/h at 2.44 m/s²: 771.6/4.88 = 158.1 m; 0.2 s of delay are 5.6 m more', () => {
    expect(stoppingDistance_m(stop)).toBeCloseTo(158.1, 1);
    expect(stoppingDistance_m({ ...stop, delay_s: 0.2 }) - stoppingDistance_m(stop)).toBeCloseTo(5.56, 2);
  });
  test('a rise that is even: the sum of small steps in time', () => {
    const [rise_s, a] = [0.6, 5];
    let [v, s] = [20, 0];
    const dt = 1e-5;
    for (let t = 0; v > 0; t += dt) {
      s += v * dt;
      v -= a * Math.min(1, t / rise_s) * dt;
    }
    expect(stoppingDistance_m({ speed_mPerS: 20, deceleration_mPerS2: a, delay_s: 0, rise_s })).toBeCloseTo(
      s,
      2,
    );
  });
  test('the rule for failed assist: 0.1·100 + 0.0158·100² = 168 m, and what does not slow down is refused', () => {
    expect(failedAssistLimit_m(FAILED_ASSIST.speed_mPerS)).toBeCloseTo(168, 9);
    expect(() => stoppingDistance_m({ ...stop, deceleration_mPerS2: 0 })).toThrow(RangeError);
  });
  test('½·1 500·1.04·27.78² = 601.9 kJ', () => {
    expect(motionEnergy_J(1500, 100 / 3.6) / 1e3).toBeCloseTo(601.9, 1);
  });
});

describe('brake force', () => {
  // 57 mm piston, μ 0.38, 0.12 m on 0.31 m: 4·0.38·25.52 cm²·0.387 = 15.01 cm²; rear 36 mm, 0.36: 5.67 cm².
  const front_NPerPa = axleGain_NPerPa(0.38, (Math.PI / 4) * 0.057 ** 2, 0.12, 0.31);
  const rear_NPerPa = axleGain_NPerPa(0.36, (Math.PI / 4) * 0.036 ** 2, 0.12, 0.31);
  const brakes = { front_NPerPa, rear_NPerPa, contact_Pa: 0.4 * BAR, split_Pa: 30 * BAR, slope: 0.4 };

  test('the example of handbook-models 8.9, friction alone: 1 550 N·m on the front axle at 0.31 m are 23.7 bar', () => {
    // 0.7 of 1 600 kg · 2.5 m/s² · 1.25 = 3 500 N on the front: p = F/K + p_c = 23.7 bar; 0.3: 1 500 N, 26.8 bar.
    expect((0.7 * 1600 * 2.5 * 1.25) / front_NPerPa / BAR + 0.4).toBeCloseTo(23.7, 1);
    expect((0.3 * 1600 * 2.5 * 1.25) / rear_NPerPa / BAR + 0.4).toBeCloseTo(26.8, 0);
  });
  test('the pressure for a force gives the force back, before the split and beyond it', () => {
    fc.assert(
      fc.property(between(100, 14_000), (force_N) => {
        const { front_N, rear_N } = axleForces_N(brakes, pressureFor_Pa(brakes, force_N));
        expect(front_N + rear_N).toBeCloseTo(force_N, 6);
      }),
    );
  });
  test('40 bar on 3.871 cm² behind 130 N at a ratio of 3.6: (1 548 + 130)/3.6 = 466 N', () => {
    const pedal = { masterArea_m2: (Math.PI / 4) * 0.0222 ** 2, spring_N: 130, pedalRatio: 3.6 };
    expect(unassistedPedal_N(40 * BAR, pedal)).toBeCloseTo(466.2, 1);
  });

  describe('axle loads', () => {
    const body = { mass_kg: 1500, wheelbase_m: 2.6, behindFront_m: 1.1, height_m: 0.55 };

    test('at rest 1 500·9.807·1.1/2.6 = 6 224 N behind; 6 m/s² take 1 500·6·0.55/2.6 = 1 904 N off it', () => {
      expect(axleLoads_N(body, 0).rear_N).toBeCloseTo(6223, 0);
      expect(axleLoads_N(body, 0).rear_N - axleLoads_N(body, 6).rear_N).toBeCloseTo(1903.8, 1);
    });
    test('held back the rear locks after the front; with nothing holding it back, before it', () => {
      const dry = locksFirst(body, brakes, 0.9, 200 * BAR)!;
      expect(dry.axle).toBe('front');
      const { front_N, rear_N } = axleForces_N(brakes, dry.pressure_Pa);
      expect(front_N / axleLoads_N(body, (front_N + rear_N) / 1500).front_N).toBeCloseTo(0.9, 4);
      const open = { ...brakes, split_Pa: 400 * BAR, rear_NPerPa: 3 * rear_NPerPa };
      expect(locksFirst(body, open, 0.9, 200 * BAR)!.axle).toBe('rear');
      expect(locksFirst(body, brakes, 0.9, 10 * BAR)).toBeNull();
    });
  });
});
