import type { RunState } from '../../contract/run-state';
import { pistonArea_m2 } from '../../signals/force-curve';
import type { Family } from '../../contract/family';
import type { RunContext } from '../../contract/run-context';
import type { Result } from '../../contract/result';
import type { Limit } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem, byLoss, resultsBy } from '../results-by';
import type { RodServoProfile } from './profile';
import { logged, type ReadingId } from './member';

type Context = RunContext<RodServoProfile>;

/** Every result of a rod-acting servo’s bench test, in the order of the steps. */
export function resultsWith(model: Family, context: Context, run: RunState): Result[] {
  const { profile } = context;
  const { limits, forceInputs_Pa, hold_s, standing_s } = profile;
  const tankLoss = (step: string, name: string, limit: Limit, planned_s: number) =>
    byLoss(`${step}-loss`, name, { step, quantity: 'depressionRate', limit, planned_s });
  const last = limits.applications.value;
  const rules: ResultRule[] = [
    { of: 'looked' },
    byItem('force-without', 'dry.output', 'Force without vacuum'),
    byItem('pull-down', 'pull.time', 'Tank pull-down time', 'supply'),
    byItem('supply-need', 'rest.supply', 'Tank vacuum, against what the unit needs', 'supply'),
    { of: 'health', step: 'pull-down', item: 'rest.supply' },
    tankLoss('static', 'Tank loss, valve released', limits.tankLoss_PaPerS, hold_s),
    byItem('force-begins', 'begin.input', 'Force begins'),
    ...forceInputs_Pa.map((_, i) =>
      byItem(`force.${i + 1}`, `force.${i + 1}.output`, `Force at pressure ${i + 1}`),
    ),
    byItem('full-force', 'full.output', 'Full force'),
    // At full lift it tells a torn piston from a weak tank. Handbook 6, 8.2.
    {
      of: 'parameter',
      id: 'effective-area',
      name: 'Effective area',
      step: 'full',
      quantity: 'area',
      from: { force: 'full.output', input: 'full.input', tank: 'full.supply' },
      value: ({ input = 0, force = 0, tank = 0 }) => pistonArea_m2(force, input, tank, logged(profile).rod),
      nominal: { value: profile.effectiveArea_m2, part: limits.effectiveArea_fraction },
    },
    // Noted: the brake, not the servo, sets its limit.
    {
      of: 'parameter',
      id: 'lever-torque',
      name: 'Torque at the lever, full force',
      step: 'full',
      quantity: 'torque',
      from: { force: 'full.output' },
      value: ({ force = 0 }) => force * profile.lever_m,
    },
    byItem('apply-time', 'apply.time', 'Apply time'),
    byItem('release-time', 'release.time', 'Release time'),
    byItem('residual', 'residual.output', 'Force left after release'),
    byItem('reserve-force', `reserve.${last}`, `Force at application ${last}, source off`),
    {
      of: 'count',
      id: 'useful-applications',
      name: 'Useful applications from the tank',
      step: 'reserve',
      measures: 'reserveForce' satisfies ReadingId,
      least: limits.reserveForce_N.value,
      limit: limits.applications,
    },
    tankLoss('standing', 'Standing decay', limits.standingLoss_PaPerS, standing_s),
  ];
  return resultsBy(model, rules, context, run);
}
