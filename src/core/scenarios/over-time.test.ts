/** @jest-environment node */
import fc from 'fast-check';
import { FAMILIES } from '../families/registry';
import { Running } from '../model/running';
import { AT_ONCE, placeOf, readingOf } from '../model/vectors';
import { INHG } from './bench';

const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
/** How nearly both must agree, as a part of what a healthy unit gives at its full input on a good supply. */
const WITHIN = 0.005;

/** How strong the bench's pump is, how much what the unit works on gives way, a fault of the unit, the supply, the input. */
const installation = fc.record({
  pump: fc.double({ min: 0.4, max: 2.5, noNaN: true }),
  give: fc.double({ min: 0.5, max: 2, noNaN: true }),
  air: fc.double({ min: 0.5, max: 20, noNaN: true }),
  severity: fc.double({ min: 0, max: 0.8, noNaN: true }),
  supply_inHg: fc.double({ min: 12, max: 24, noNaN: true }),
  part: fc.double({ min: 0.35, max: 1, noNaN: true }),
});

/** What moves while an application stands still, for the one family or the other: a passage, an area, a leak. */
const FAULTS = {
  'remote-vacuum': ['torn-diaphragm', 'undersized-diaphragm', 'hub-seal-leak'],
  'rod-servo': ['torn-piston', 'undersized-piston', 'tank-leak'],
} as const;

/** Time in which all has come to rest, s: a tank on a weak pump takes its time. */
const SETTLE_S = { 'remote-vacuum': 60, 'rod-servo': 150 } as const;

describe.each(['remote-vacuum', 'rod-servo'] as const)('%s on random benches', (kind) => {
  const family = FAMILIES[kind];
  const profile = family.typical as { readonly fullInput_Pa: number };
  const { values } = family.healthy(family.typical);
  const at = (input_Pa: number, supply_Pa: number) => ({
    input_Pa,
    supply_Pa,
    ...ROOM,
    ...AT_ONCE,
    applications: 1,
  });
  const full = readingOf(family, values, at(profile.fullInput_Pa, 20 * INHG), 'output');

  test.each(FAULTS[kind])(
    '%s: the composed steady state is where the members end together over time',
    (id) => {
      const fault = family.faults.find((one) => one.id === id)!;
      const outputPort = family.ports.findIndex((port) => port.id === 'output');
      const supplyPort = family.ports.findIndex((port) => port.id === 'supply');
      fc.assert(
        fc.property(installation, ({ pump, give, air, severity, supply_inHg, part }) => {
          const parameters = [...fault.apply(values, severity)];
          const scale = (name: string, by: number) => {
            if (family.parameters.some((one) => one.id === name))
              parameters[placeOf(family.parameters, name)]! *= by;
          };
          scale('source.speed_m3PerS', pump);
          scale('load.stiffness_m3PerPa', give);
          scale('load.air_m3', air);
          scale('load.stiffness_NPerM', give);
          const supply_Pa = supply_inHg * INHG;
          const bench = new Running(family.motion!, parameters, { ...ROOM, supply_Pa }, family.ports.length);
          bench.set({ valve: 'open' });
          expect(bench.advance(SETTLE_S[kind]).ok).toBe(true);
          // The gauge on the unit at rest is what the composed model knows the source by.
          const rest = bench.read()[supplyPort]!;
          const input = part * profile.fullInput_Pa;
          bench.set({ handle_Pa: input });
          expect(bench.advance(SETTLE_S[kind]).ok).toBe(true);
          const found = bench.read()[outputPort]!;
          const steady = readingOf(family, parameters, at(input, rest), 'output');
          expect(Math.abs(found - steady) / full).toBeLessThan(WITHIN);
        }),
        { numRuns: 4, seed: 1127 },
      );
    },
  );
});
