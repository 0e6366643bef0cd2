import { judged } from '../../procedure/judged';
import { captureIds, instrumentsOf, measuredItem } from '../../procedure/measured-item';
import type { RunState } from '../../contract/run-state';
import { rodArea_m2 } from '../../signals/force-curve';
import type { Family } from '../../contract/family';
import type { RunContext } from '../../contract/run-context';
import { notTaken, type Result, type ResultHead } from '../../contract/result';
import type { Limit } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import type { Read } from '../loss-rate';
import { byItem, byLoss, resultsBy } from '../results-by';
import type { RodServoProfile } from './profile';
import { logged, type ReadingId } from './member';

type Context = RunContext<RodServoProfile>;

/** Every result of a rod-acting servo’s bench test, in the order of the steps. */
export function resultsWith(model: Family, context: Context, run: RunState): Result[] {
  const { profile } = context;
  const { limits, forceInputs_Pa, hold_s, standing_s } = profile;
  const read: Read = (id) => measuredItem(instrumentsOf(context.rig, context.shelf), run, id);
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
    { of: 'own', make: () => [effectiveArea(context, read), leverTorque(context, read)] },
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

/** Area at full lift: tells a torn piston from a weak tank. Handbook 6, 8.2. */
function effectiveArea(context: Context, read: Read): Result {
  const { profile } = context;
  const { value: part, source } = profile.limits.effectiveArea_fraction;
  const head: ResultHead = {
    id: 'effective-area',
    name: 'Effective area',
    step: 'full',
    item: null,
    about: 'unit',
    quantity: 'area',
  };
  const [input, force, tank] = ['full.input', 'full.output', 'full.supply'].map(read);
  if (!input || !force || !tank || !(tank.value_SI > 0)) return notTaken(head, source);
  const { rod } = logged(profile);
  const value = rodArea_m2(force.value_SI, input.value_SI, tank.value_SI, rod);
  return judged(
    head,
    {
      value,
      expected: profile.effectiveArea_m2,
      limits: { low: profile.effectiveArea_m2 * (1 - part), high: profile.effectiveArea_m2 * (1 + part) },
      limitSource: source,
      terms: [
        { sensitivity: rod.giving / tank.value_SI, measured: force },
        { sensitivity: -rod.pushArea_m2 / tank.value_SI, measured: input },
        { sensitivity: -value / tank.value_SI, measured: tank },
      ],
      captures: captureIds(input, force, tank),
    },
    context,
  );
}

/** What the full force makes of the cam lever. Noted: the brake, not the servo, sets its limit. */
function leverTorque({ profile, ...context }: Context, read: Read): Result {
  const head: ResultHead = {
    id: 'lever-torque',
    name: 'Torque at the lever, full force',
    step: 'full',
    item: null,
    about: 'unit',
    quantity: 'torque',
  };
  const force = read('full.output');
  if (!force) return { ...notTaken(head), verdict: 'not-taken' };
  return judged(
    head,
    {
      value: force.value_SI * profile.lever_m,
      limits: null,
      limitSource: '',
      terms: [{ sensitivity: profile.lever_m, measured: force }],
      captures: captureIds(force),
    },
    { profile, ...context },
  );
}
