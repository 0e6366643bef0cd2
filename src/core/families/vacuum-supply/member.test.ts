/** @jest-environment node */
import fc from 'fast-check';
import { airFlow_PaM3PerS } from '../../air/flow';
import { member, parameters } from './member';
import { typical } from './typical';

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const place = (id: (typeof parameters)[number]['id']) => parameters.findIndex((one) => one.id === id);
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };

test('what the hose and a leak give the source is what it takes away, wherever the unit stands', () => {
  fc.assert(
    fc.property(
      between(25e3, 100e3),
      between(0, 1.5e-8),
      between(0, 1e-8),
      between(1e-3, 0.02),
      between(1e-10, 5e-8),
      (unit_Pa, leak, spare, suction, hose) => {
        const vector = member
          .healthy(typical)
          .values.with(place('sourceLeak_m3PerSPa'), leak)
          .with(place('spare_m3PerSPa'), spare)
          .with(place('suction_m3PerS'), suction)
          .with(place('hose_m3PerSPa'), hose);
        const standing = member.with(vector, [ROOM.barometer_Pa, ROOM.temperature_K]);
        const [depression_Pa] = standing.read([unit_Pa], undefined as never) as [number];
        const source_Pa = ROOM.barometer_Pa - depression_Pa;
        const flow = (c: number, from: number, to: number) =>
          airFlow_PaM3PerS(c, from, to, ROOM.temperature_K);
        const comes =
          flow(hose, unit_Pa - typical.crack_Pa, source_Pa) + flow(leak, ROOM.barometer_Pa, source_Pa);
        const floor_Pa = typical.idle_Pa!;
        const most = suction * (source_Pa - floor_Pa) + flow(spare, ROOM.barometer_Pa, floor_Pa);
        // At its floor the idle control takes back what comes; above it all of that is used up.
        expect(source_Pa).toBeGreaterThanOrEqual(floor_Pa);
        if (source_Pa > floor_Pa + 1) expect(Math.abs(comes - most)).toBeLessThan(1e-3 * most + 0.05);
        else expect(comes).toBeLessThan(most + 0.05);
      },
    ),
    { numRuns: 500 },
  );
});

test('a reading of the source asks for no pump where there is a manifold, and for no manifold where there is a pump', () => {
  // ε·p_atm + leak/S: 0.1·101 325 + 1e-9·101 325·1.185·288·293.15/5e-4 = 10 133 + 20 275 Pa.
  const pump = member.healthy({
    ...typical,
    makes: 'electric-pump',
    floorShare: 0.1,
    suction_m3PerS: 5e-4,
    idle_Pa: null,
    spare_m3PerSPa: null,
  }).values;
  const leaking = pump.with(place('sourceLeak_m3PerSPa'), 1e-9);
  const standing = member.with(leaking, [ROOM.barometer_Pa, ROOM.temperature_K]);
  const [depression_Pa] = standing.read([20e3], undefined as never) as [number];
  expect(ROOM.barometer_Pa - depression_Pa).toBeCloseTo(
    10_132.5 + (1e-9 * 101_325 * 1.185 * 288 * 293.15) / 5e-4,
    0,
  );
});
