import { z } from 'zod';
import { INHG_PA } from '../../quantities/units';
import { amount, identityFields, limit } from '../profile-fields';

const KPA = 1e3;

/**
 * What is known of a kind of pedal-mounted vacuum booster, single or tandem. SI throughout; nothing physical is assumed
 * where it is left out. Typical ranges: handbook-models 8.3.
 */
export const pedalVacuumProfile = z
  .strictObject({
    kind: z.literal('pedal-vacuum'),
    ...identityFields,
    chambers: z.enum(['single', 'tandem']).meta({ title: 'Chambers' }),
    pedalRatio: amount('Pedal ratio', 'ratio', 1, 8),
    area_m2: amount('Effective area, all diaphragms', 'area', 5e-3, 0.15),
    spring_N: amount('Return spring', 'force', 0, 600),
    reaction: amount('Reaction ratio R', 'ratio', 1.2, 15),
    begin_N: amount('Input at which output begins', 'force', 5, 300),
    jump_N: amount('Jump-in', 'force', 0, 1500),
    friction_N: amount('Friction of the valve, half the gap between apply and release', 'force', 0, 60),
    valve_N: amount('Input that opens the air valve wide', 'force', 0.5, 40),
    front_m3: amount('Volume on the vacuum side', 'volume', 3e-4, 0.02),
    rear_m3: amount('Volume on the working side at rest', 'volume', 1e-5, 0.01),
    air_m3PerSPa: amount('Air passage of the valve', 'conductance', 1e-9, 1e-6),
    vacuumPort_m3PerSPa: amount('Vacuum passage of the valve', 'conductance', 1e-9, 1e-6),
    clearance_m: amount('Clearance of the pushrod', 'travel', 0, 3e-3),
    light_N: amount('Lighter test force at the pedal', 'force', 20, 800),
    heavy_N: amount('Heavier test force at the pedal, beyond runout', 'force', 20, 1000),
    moderate_N: amount('Moderate pedal force', 'force', 20, 400),
    decay_s: amount('Vacuum watched at rest', 'duration', 5, 3600),
    hold_s: amount('Pedal held, engine off', 'duration', 5, 600),
    standing_s: amount('Stand before the reserve', 'duration', 5, 7200),
    limits: z
      .strictObject({
        area_fraction: limit('Effective area, either way', 'percent', 0.005, 0.5),
        reaction_fraction: limit('Reaction ratio, either way', 'percent', 0.005, 0.5),
        without_N: limit('Return spring and friction, either way', 'force', 1, 400),
        supplyNeed_Pa: limit('Least vacuum the unit needs', 'depression', INHG_PA, 29 * INHG_PA),
        decay_PaPerS: limit('Vacuum lost at rest', 'depressionRate', 0, INHG_PA),
        rise_m: limit('Pedal rise, held with the engine off, at most', 'travel', 1e-4, 0.05),
        apply_s: limit('Apply time, at most', 'duration', 0.02, 10),
        reserve: limit('Assisted applications, engine just stopped, at least', 'count', 0, 12),
        standingReserve: limit('Assisted applications after the stand, at least', 'count', 0, 12),
        clearance_m: limit('Clearance of the pushrod, either way', 'travel', 1e-5, 2e-3),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    const issue = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    const closes_N = 2 * p.friction_N + p.valve_N;
    if (p.begin_N < closes_N)
      issue(
        'begin_N',
        `A healthy unit of these figures would drag: its vacuum port would shut at rest. Output must begin at ${closes_N.toFixed(1)} N or more: twice the friction and what opens the valve.`,
      );
    if (p.light_N >= p.heavy_N) issue('light_N', 'The lighter test force must be below the heavier.');
    if (p.pedalRatio * p.moderate_N <= p.begin_N)
      issue('moderate_N', 'At the moderate force the unit must have begun to assist.');
    if (p.rear_m3 >= p.front_m3) issue('rear_m3', 'At rest the working side is the smaller one.');
    for (const id of ['reserve', 'standingReserve'] as const)
      if (!Number.isInteger(p.limits[id].value))
        ctx.addIssue({
          code: 'custom',
          path: ['limits', id, 'value'],
          message: 'Applications: a whole number.',
        });
  });

export type PedalVacuumProfile = z.infer<typeof pedalVacuumProfile>;

/** The least healthy whole leak that the handbook allows for, m³/(s·Pa). Handbook-models 8.3. */
export const HEALTHY_LEAK_M3_PER_S_PA = 2e-12;

/** A vacuum that has recovered stands within this part of where it settles. */
export const RECOVERED = 0.9;

/** Applications on what is stored: one so often, each held so long while the pressure is read, s. The test asks for it. */
export const RHYTHM = { every_s: 10, held_s: 3 } as const;

export const TYPICAL_NEED_PA = 18 * INHG_PA;
export const DECAY_PA_PER_S = (2 * KPA) / 60;
