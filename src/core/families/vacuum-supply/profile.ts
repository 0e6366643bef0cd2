import { z } from 'zod';
import { amount, identityFields, limit } from '../profile-fields';

const KPA = 1e3;

/** What is known of a kind of vacuum supply: what makes the vacuum, its hose, check valve and tank. SI. Handbook-models 9. */
export const vacuumSupplyProfile = z
  .strictObject({
    kind: z.literal('vacuum-supply'),
    ...identityFields,
    makes: z.enum(['manifold', 'engine-pump', 'electric-pump']).meta({
      title: 'What makes the vacuum',
      labels: {
        manifold: 'Engine manifold',
        'engine-pump': 'Engine-driven pump',
        'electric-pump': 'Electric pump',
      },
    }),
    suction_m3PerS: amount('Suction of engine at idle, or of the pump', 'flow', 5e-5, 0.1),
    idle_Pa: amount('Manifold pressure at idle, absolute', 'barometer', 15 * KPA, 95 * KPA)
      .nullable()
      .meta({ title: 'Manifold pressure at idle, absolute (manifold only)', quantity: 'barometer' }),
    spare_m3PerSPa: amount('Leak that the idle control takes back', 'conductance', 0, 5e-8)
      .nullable()
      .meta({ title: 'Leak that the idle control takes back (manifold only)', quantity: 'conductance' }),
    floorShare: amount('Part of the barometer that the pump leaves', 'ratio', 0.01, 0.6)
      .nullable()
      .meta({ title: 'Part of the barometer that the pump leaves (pump only)', quantity: 'ratio' }),
    on_Pa: amount('Vacuum at which the pump starts', 'depression', 5 * KPA, 95 * KPA)
      .nullable()
      .meta({ title: 'Vacuum at which the pump starts (electric only)', quantity: 'depression' }),
    off_Pa: amount('Vacuum at which the pump stops', 'depression', 5 * KPA, 95 * KPA)
      .nullable()
      .meta({ title: 'Vacuum at which the pump stops (electric only)', quantity: 'depression' }),
    hose_m3PerSPa: amount('Hose, sonic conductance', 'conductance', 1e-10, 1e-6),
    crack_Pa: amount('Check valve opens at', 'pressure', 0, 10 * KPA),
    tank_m3: amount('Tank and hose up to the check valve', 'volume', 1e-5, 0.05),
    limits: z
      .strictObject({
        idle_Pa: limit('Idle vacuum, either way', 'depression', 100, 20 * KPA),
        switch_Pa: limit(
          'Vacuum at which an electric pump starts and stops, either way',
          'depression',
          100,
          20 * KPA,
        ),
        hose_fraction: limit('Hose, either way', 'percent', 0.01, 0.9),
        recovery_s: limit('Recovery of the vacuum after a release, at most', 'duration', 0.05, 60),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    const issue = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    const [needed, whose] = NEEDED[p.makes];
    for (const id of needed) if (p[id] === null) issue(id, `${whose} needs this figure.`);
    if (p.on_Pa !== null && p.off_Pa !== null && p.on_Pa >= p.off_Pa)
      issue('on_Pa', 'The pump must start at less vacuum than it stops at.');
  });

/** Figures without which a source of each kind is not described. */
const NEEDED = {
  manifold: [['idle_Pa', 'spare_m3PerSPa'], 'A manifold'],
  'engine-pump': [['floorShare'], 'A pump'],
  'electric-pump': [['floorShare', 'on_Pa', 'off_Pa'], 'An electric pump'],
} as const;

export type VacuumSupplyProfile = z.infer<typeof vacuumSupplyProfile>;
