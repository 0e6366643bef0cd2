/** @jest-environment node */
import fc from 'fast-check';
import { airFlow_PaM3PerS } from '../../air/flow';
import { asRead, member, parameters } from './member';
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

test('a source that is read at the unit while that draws something is the one that was read, wherever the unit stands', () => {
  fc.assert(
    fc.property(
      between(30e3, 95e3),
      between(22e3, 100e3),
      between(0, 4e-9),
      between(0, 4e-9),
      between(1e-3, 0.02),
      between(1e-9, 5e-8),
      between(0, 1e-9),
      (unit_Pa, elsewhere_Pa, leak, spare, suction, hose, hoseLeak) => {
        const vector = member
          .healthy(typical)
          .values.with(place('sourceLeak_m3PerSPa'), leak)
          .with(place('spare_m3PerSPa'), spare)
          .with(place('suction_m3PerS'), suction)
          .with(place('hose_m3PerSPa'), hose)
          .with(place('hoseLeak_m3PerSPa'), hoseLeak);
        const { barometer_Pa, temperature_K } = ROOM;
        const own = member.with(vector, [barometer_Pa, temperature_K]);
        const passes = own.through(0, unit_Pa, []);
        fc.pre(passes > 1);
        // Choked, what the source draws is told by the unit's pressure alone: the gauge cannot say how deep it reaches.
        const [depression_Pa] = own.read([unit_Pa], undefined as never) as [number];
        fc.pre(barometer_Pa - depression_Pa > 0.55 * unit_Pa);
        // What it knows of the floor is the gauge alone.
        const told = asRead.with(vector.with(place('floor_Pa'), NaN), [
          barometer_Pa - unit_Pa,
          barometer_Pa,
          temperature_K,
        ]).drawnAtRest!(unit_Pa, passes);
        expect(Math.abs(told.through(0, unit_Pa, []) - passes)).toBeLessThan(0.05 + 1e-3 * passes);
        expect(Math.abs(told.through(0, elsewhere_Pa, []) - own.through(0, elsewhere_Pa, []))).toBeLessThan(
          0.1 + 5e-3 * Math.abs(own.through(0, elsewhere_Pa, [])),
        );
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
