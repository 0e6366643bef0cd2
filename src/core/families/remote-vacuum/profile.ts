import { z } from 'zod';
import { INHG_PA } from '../../quantities/units';
import { amount, fluidField, identityFields, limit, pressures } from '../profile-fields';

const BAR = 1e5;

/**
 * What is known of a kind of remote vacuum unit. SI throughout; nothing physical is assumed where it is left out.
 * Typical ranges: handbook 8.1.
 */
export const remoteVacuumProfile = z
  .strictObject({
    kind: z.literal('remote-vacuum'),
    ...identityFields,
    suspension: z
      .enum(['vacuum', 'air'])
      .refine(
        (value) => value === 'vacuum',
        'Air-suspended units are not modelled yet: their activation port reads the other way round.',
      )
      .meta({ title: 'Suspension' }),
    fluid: fluidField,
    effectiveDiameter_m: amount('Effective diaphragm diameter', 'length', 0.05, 0.6),
    slaveBore_m: amount('Slave bore', 'length', 0.008, 0.06),
    rodDiameter_m: amount('Push rod diameter', 'length', 0.001, 0.03),
    spring_N: amount('Spring force', 'force', 0, 2000),
    boostRatio: amount('Boost ratio B', 'ratio', 1.05, 10),
    crack_Pa: amount('Crack', 'pressure', 0, 20 * BAR),
    jumpIn_Pa: amount('Jump-in J', 'pressure', 0, 60 * BAR)
      .nullable()
      .meta({ title: 'Jump-in J (empty: line through the origin)', quantity: 'pressure' }),
    vacuumVolume_m3: amount('Vacuum volume, can and bench hose', 'volume', 1e-4, 0.1),
    proof_Pa: amount('Proof limit', 'pressure', 10 * BAR, 300 * BAR),
    ratioLimitFor: z.enum(['slope', 'at-input']).meta({
      title: 'Boost ratio limit is for',
      labels: { slope: 'B as a slope', 'at-input': 'out ÷ in at an input' },
    }),
    bypassInputs_Pa: pressures('Bypass inputs', 3),
    ratioInputs_Pa: pressures('Ratio inputs', 2),
    fullInput_Pa: amount('Test input for full output', 'pressure', BAR, 250 * BAR),
    holdInput_Pa: amount('Hold input', 'pressure', BAR, 250 * BAR),
    settle_s: amount('Settling time before a hold', 'duration', 1, 600),
    hold_s: amount('Hold time', 'duration', 3, 3600),
    lampSwitch: z
      .strictObject({
        closesFrom_Pa: amount('Stop-lamp switch closes, from', 'pressure', 0, 50 * BAR),
        closesTo_Pa: amount('Stop-lamp switch closes, to', 'pressure', 0, 50 * BAR),
        source: z
          .string()
          .trim()
          .min(1, 'Stop-lamp switch: say where the limit comes from.')
          .max(300)
          .meta({ title: 'Source' }),
      })
      .nullable()
      .meta({ title: 'Stop-lamp switch fitted' }),
    limits: z
      .strictObject({
        bypass_fraction: limit('Bypass, part of input', 'percent', 0.001, 0.5),
        bypass_Pa: limit('Bypass, at least', 'pressure', 0, 20 * BAR),
        boostRatio_fraction: limit('Boost ratio, either way', 'percent', 0.005, 0.5),
        effectiveArea_fraction: limit('Effective area, either way', 'percent', 0.005, 0.5),
        crackLow_Pa: limit('Crack, lowest', 'pressure', 0, 20 * BAR),
        crackHigh_Pa: limit('Crack, highest', 'pressure', 0, 30 * BAR),
        supplyNeed_Pa: limit('Least supply the unit needs', 'depression', INHG_PA, 29 * INHG_PA),
        restDifference_Pa: limit(
          'Supply and activation alike within',
          'depression',
          0.01 * INHG_PA,
          10 * INHG_PA,
        ),
        fullActivation_Pa: limit(
          'Activation at full activation, at most',
          'depression',
          0.01 * INHG_PA,
          10 * INHG_PA,
        ),
        supplyDrop_Pa: limit('Supply falls on applying, at most', 'depression', 0.1 * INHG_PA, 20 * INHG_PA),
        holdLoss_PaPerS: limit('Hold, output loss at most', 'pressureRate', 0, BAR),
        residual_Pa: limit('Residual after release, at most', 'pressure', 0.01 * BAR, 10 * BAR),
        hysteresis_fraction: limit('Hysteresis, part of output', 'percent', 0.01, 1),
        vacuumLossReleased_PaPerS: limit('Vacuum loss, released', 'depressionRate', 0, INHG_PA),
        vacuumLossApplied_PaPerS: limit('Vacuum loss, applied', 'depressionRate', 0, INHG_PA),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    const issue = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    if (p.rodDiameter_m >= p.slaveBore_m)
      issue('rodDiameter_m', 'The push rod must be thinner than the slave bore.');
    if (p.slaveBore_m >= p.effectiveDiameter_m)
      issue('slaveBore_m', 'The slave bore must be smaller than the diaphragm.');
    if (p.bypassInputs_Pa.some((input) => input > p.proof_Pa))
      issue('bypassInputs_Pa', 'A bypass input is above the proof limit.');
    if (p.fullInput_Pa * p.boostRatio > p.proof_Pa)
      issue('fullInput_Pa', 'Boosted, this input would pass the proof limit.');
    if (p.holdInput_Pa * p.boostRatio > p.proof_Pa)
      issue('holdInput_Pa', 'Boosted, this input would pass the proof limit.');
    if (p.limits.crackLow_Pa.value >= p.limits.crackHigh_Pa.value)
      ctx.addIssue({
        code: 'custom',
        path: ['limits', 'crackHigh_Pa', 'value'],
        message: 'Highest crack must be above the lowest.',
      });
    if (p.lampSwitch && p.lampSwitch.closesFrom_Pa >= p.lampSwitch.closesTo_Pa)
      ctx.addIssue({
        code: 'custom',
        path: ['lampSwitch', 'closesTo_Pa'],
        message: 'The upper closing pressure must be above the lower one.',
      });
  });

export type RemoteVacuumProfile = z.infer<typeof remoteVacuumProfile>;
