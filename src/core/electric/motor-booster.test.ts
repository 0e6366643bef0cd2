/** @jest-environment node */
import fc from 'fast-check';
import { motorLimit_A } from './feed';
import { heldBy_A, motorOutput_N, motorRunout_N, stepTime_s, unpowered_Pa } from './motor-booster';
import { pairFaults, trackRefused, travelOf_m, usualTrack } from './sensor-track';

const MM = 1e-3;
/** Within the typical ranges of handbook-models 8.8. */
const booster = { spring_N: 80, crack_N: 30, jump_N: 120, gain: 5, perAmpere_N: 60, limit_N: 3600 };

describe('a booster with a motor, handbook-models 8.8', () => {
  test('below crack the foot alone; from there on the map: 120 + 5·570 = 2 970 N, held by (2 970 − 520)/60 A', () => {
    expect(motorOutput_N(booster, 20, 60)).toBe(0);
    expect(motorOutput_N(booster, 600, 60)).toBe(2970);
    expect(heldBy_A(booster, 600, 2970)).toBeCloseTo(40.83, 2);
  });
  test('runs out at (3 600 − 80 − 120 + 150)/4 = 887.5 N; on 12.0 V behind 120 mΩ at some 676, with the same gain before', () => {
    expect(motorRunout_N(booster, 60)).toBeCloseTo(887.5, 9);
    const weak_A = motorLimit_A({ winding_Ohm: 0.09, idle_W: 8 }, { limit_A: 60, cutOff_V: 9.5 }, 12, 0.12);
    expect(motorRunout_N(booster, weak_A)).toBeCloseTo(676.55, 1);
    for (const input_N of [100, 300, 600])
      expect(motorOutput_N(booster, input_N, weak_A)).toBe(motorOutput_N(booster, input_N, 60));
    expect(motorOutput_N(booster, 1000, weak_A)).toBeCloseTo(1000 - 80 + 60 * weak_A, 6);
  });
  test('never less than the foot alone, never falling, and never more than current and limit allow', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 3000, noNaN: true }),
        fc.double({ min: 0, max: 500, noNaN: true }),
        fc.double({ min: 0, max: 80, noNaN: true }),
        (input_N, more_N, most_A) => {
          const output_N = motorOutput_N(booster, input_N, most_A);
          expect(output_N).toBeGreaterThanOrEqual(Math.max(0, input_N - 80));
          expect(motorOutput_N(booster, input_N + more_N, most_A)).toBeGreaterThanOrEqual(output_N - 1e-9);
          expect(heldBy_A(booster, input_N, output_N)).toBeLessThanOrEqual(Math.max(most_A, 120 / 60) + 1e-9);
        },
      ),
    );
  });
  test('with no power (600 − 80 − 60) N on 22.2 mm: 11.9 bar', () => {
    const master_m2 = (Math.PI * 0.0222 ** 2) / 4;
    expect(unpowered_Pa(booster, { friction_N: 60, master_m2 }, 600) / 1e5).toBeCloseTo(11.88, 2);
    expect(unpowered_Pa(booster, { friction_N: 60, master_m2 }, 100)).toBe(0);
  });
  test('a step to 3 of 4.5 kN: 20 ms + 0.1 s·ln 3; one beyond what stalls it never comes', () => {
    const step = { delay_s: 0.02, stall_N: 4500, free_mPerS: 0.15, stiffness_NPerM: 3e5 };
    expect(stepTime_s(3000, step)).toBeCloseTo(0.12986, 5);
    expect(stepTime_s(4500, step)).toBe(Infinity);
  });
});

describe('tracks of a sensor', () => {
  const tracks = [usualTrack(5, 40 * MM), usualTrack(5, 40 * MM, true)] as const;
  const within = { within_m: 0.2 * MM, sum_V: 0.1 };
  const speak = (rest: readonly [number, number], pressed: readonly [number, number], supply_V = 5) =>
    pairFaults(tracks, { supply_V, rest_V: rest, pressed_V: pressed }, within);
  test('the table is scaled to the supply that is read: 2.4 V of 4.8 are 2.5 of 5, 20 mm of 40', () => {
    expect(travelOf_m(tracks[0], 2.4, 4.8)! / MM).toBeCloseTo(20, 9);
    expect(travelOf_m(tracks[1], 0.9 * 4.8, 4.8)).toBeCloseTo(0, 9);
    expect(travelOf_m(tracks[0], 0.2, 5)).toBeNull();
    expect(() => travelOf_m(tracks[0], 5.1, 5)).toThrow(/volts_V: 5.1 V cannot stand on a supply of 5 V/);
  });
  test('a table of several points is read back at each of them and half-way between, rising or falling', () => {
    const rising = [
      [0, 0.5],
      [0.01, 1.2],
      [0.03, 3.1],
      [0.04, 4.5],
    ] as const;
    const falling = rising.map(([way, volts]) => [way, 5 - volts] as const);
    for (const points of [rising, falling])
      points.forEach(([way, volts], i) => {
        expect(travelOf_m({ supply_V: 5, points }, volts, 5)!).toBeCloseTo(way, 12);
        const next = points[i + 1];
        if (!next) return;
        expect(travelOf_m({ supply_V: 5, points }, (volts + next[1]) / 2, 5)!).toBeCloseTo(
          (way + next[0]) / 2,
          12,
        );
      });
  });
  test('a little beyond an end of its table it goes on straight, further out it is railed', () => {
    expect(travelOf_m(tracks[0], 0.45, 5)! / MM).toBeCloseTo(-0.5, 9);
    expect(travelOf_m(tracks[0], 4.55, 5)! / MM).toBeCloseTo(40.5, 9);
    expect([0.35, 4.65].map((volts_V) => travelOf_m(tracks[0], volts_V, 5))).toEqual([null, null]);
  });
  test('between the points of a table it is straight', () => {
    const bent = {
      supply_V: 5,
      points: [
        [0, 0.5],
        [0.01, 1.5],
        [0.03, 4.5],
      ],
    } as const;
    expect(travelOf_m(bent, 3, 5)! / MM).toBeCloseTo(20, 9);
  });
  test('a table that turns, stands still, goes back or beyond its supply is refused with what fails', () => {
    const say = (...points: (readonly [number, number])[]) => trackRefused({ supply_V: 5, points });
    expect(say([0, 1])).toMatch(/two points/);
    expect(say([0, 1], [0.01, 2], [0.02, 1.5], [0.03, 4])).toMatch(/Point 3: the volts must rise, or fall/);
    expect(say([0, 1], [0.01, 1], [0.02, 2])).toMatch(/Point 2/);
    expect(say([0, 1], [0, 2])).toMatch(/the way must rise/);
    expect(say([0, 1], [0.01, 5.2])).toMatch(/5.2 V cannot stand on a supply of 5 V/);
    expect(say([0, 4.5], [0.01, 0.5])).toBeNull();
  });
  test('nothing speaks against a sound pair, whatever its supply', () => {
    expect(speak([0.5, 4.5], [2.5, 2.5])).toEqual([]);
    expect(speak([0.48, 4.32], [2.4, 2.4], 4.8)).toEqual([]);
  });
  test('swapped tracks and a displaced magnet keep their sum: pressing tells the one, the rest the other', () => {
    expect(speak([4.5, 0.5], [2.5, 2.5])).toEqual(['swapped']);
    // 1 mm of 40: 0.1 V.
    expect(speak([0.6, 4.4], [2.6, 2.4])).toEqual(['displaced']);
  });
  test('one that is railed, and one that does not move as it is pressed', () => {
    expect(speak([0.02, 4.5], [0.02, 2.5])).toEqual(['sum', 'railed', 'still']);
    expect(speak([0.5, 4.5], [0.5, 4.5])).toEqual(['still']);
  });
});
