import { z } from 'zod';
import { INHG_PA } from '../../quantities/units';
import { amount, fluidField, identityFields, limit, pressures } from '../profile-fields';

const BAR = 1e5;

/**
 * What is known of a kind of suspended vacuum servo with its own tank, acting on a rod. SI throughout; nothing
 * physical is assumed where it is left out. Typical ranges: handbook 8.2.
 */
export const rodServoProfile = z
  .strictObject({
    kind: z.literal('rod-servo'),
    ...identityFields,
    fluid: fluidField,
    effectiveArea_m2: amount('Effective area of the servo cylinder', 'area', 1e-3, 0.2),
    preload_N: amount('Return spring preload', 'force', 0, 2000),
    springRate_NPerM: amount('Return spring rate', 'stiffness', 0, 1e5),
    stroke_m: amount('Stroke', 'length', 5e-3, 0.3),
    lever_m: amount('Lever length', 'length', 0.01, 1),
    crack_Pa: amount('Crack: the valve begins to lift', 'pressure', 0, 20 * BAR),
    fullLift_Pa: amount('Full lift of the valve', 'pressure', BAR, 60 * BAR),
    pushArea_m2: amount('Push-through piston area', 'area', 1e-6, 1e-2).nullable().meta({
      title: 'Push-through piston area (empty: none)',
      quantity: 'area',
    }),
    frontVolume_m3: amount('Volume on the vacuum side at rest', 'volume', 1e-5, 0.05),
    rearVolume_m3: amount('Volume on the working side at rest', 'volume', 1e-5, 0.05),
    tank_m3: amount('Tank volume', 'volume', 1e-4, 0.2),
    airBore_m: amount('Air passage of the valve, as a sharp orifice', 'length', 5e-4, 0.03),
    lineBore_m: amount('Vacuum line, as a sharp orifice', 'length', 5e-4, 0.03),
    loadStiffness_NPerM: amount('Stiffness of the load on the bench', 'stiffness', 1e3, 1e7),
    proof_Pa: amount('Proof limit of the valve', 'pressure', 5 * BAR, 200 * BAR),
    forceInputs_Pa: pressures('Fluid pressures for the force', 3),
    fullInput_Pa: amount('Fluid pressure for full force', 'pressure', BAR, 100 * BAR),
    pullDownTo_Pa: amount('Pull-down is timed to', 'depression', INHG_PA, 27 * INHG_PA),
    hold_s: amount('Tank watched, source shut', 'duration', 10, 3600),
    standing_s: amount('Standing decay', 'duration', 10, 86_400),
    limits: z
      .strictObject({
        effectiveArea_fraction: limit('Effective area, either way', 'percent', 0.005, 0.5),
        lift_Pa: limit('Crack and full lift, either way', 'pressure', 0.01 * BAR, 10 * BAR),
        supplyNeed_Pa: limit('Least tank vacuum the unit needs', 'depression', INHG_PA, 29 * INHG_PA),
        pullDown_s: limit('Pull-down time, at most', 'duration', 1, 600),
        forceWithout_N: limit('Force without vacuum, either way', 'force', 1, 2000),
        tankLoss_PaPerS: limit('Tank loss, valve released', 'depressionRate', 0, INHG_PA),
        standingLoss_PaPerS: limit('Standing loss', 'depressionRate', 0, INHG_PA),
        apply_s: limit('Apply time, at most', 'duration', 0.05, 30),
        release_s: limit('Release time, at most', 'duration', 0.05, 30),
        residual_N: limit('Force left after release, at most', 'force', 1, 1000),
        reserveForce_N: limit('Least useful force', 'force', 10, 1e4),
        applications: limit('Useful applications from a full tank, at least', 'count', 1, 30),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    const issue = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    if (p.fullLift_Pa <= p.crack_Pa) issue('fullLift_Pa', 'Full lift must come after crack.');
    if (p.fullInput_Pa <= p.fullLift_Pa)
      issue('fullInput_Pa', 'Full force is read above full lift of the valve.');
    if (p.forceInputs_Pa.some((input) => input > p.fullInput_Pa))
      issue('forceInputs_Pa', 'A pressure for the force is above the one for full force.');
    if (p.fullInput_Pa > p.proof_Pa) issue('fullInput_Pa', 'This pressure is above the proof limit.');
    if (p.pullDownTo_Pa > p.limits.supplyNeed_Pa.value)
      issue('pullDownTo_Pa', 'The pull-down mark must be no deeper than the vacuum the unit needs.');
    if (p.effectiveArea_m2 * p.stroke_m >= p.frontVolume_m3)
      issue('frontVolume_m3', 'The vacuum side must hold more than the stroke takes.');
    if (!Number.isInteger(p.limits.applications.value))
      ctx.addIssue({
        code: 'custom',
        path: ['limits', 'applications', 'value'],
        message: 'Applications: a whole number.',
      });
  });

export type RodServoProfile = z.infer<typeof rodServoProfile>;
