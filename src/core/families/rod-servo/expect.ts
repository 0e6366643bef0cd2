import type { Limits } from '../../metrology/verdict';
import { instrumentsOf, measuredItem } from '../../procedure/measured-item';
import { predict, type Prediction } from '../../procedure/predict';
import { holdStart, type ReadingItem } from '../../contract/steps';
import type { RunState } from '../../contract/run-state';
import type { Family } from '../../contract/family';
import type { RunContext } from '../../contract/run-context';
import type { Expectation } from '../../contract/result';
import type { RodServoProfile } from './profile';

type Context = RunContext<RodServoProfile>;

interface Limit {
  readonly value: number;
  readonly source: string;
}

const atMost = ({ value, source }: Limit) => ({ limits: { high: value }, source });
const atLeast = ({ value, source }: Limit) => ({ limits: { low: value }, source });

/** What the profile says a reading must keep to, whatever the twin predicts; null where the twin's band is the limit. */
function ownLimits(
  { limits }: RodServoProfile,
  item: ReadingItem,
  prediction: Prediction | null,
  start: number | null,
): { limits: Limits; source: string } | null {
  switch (item.measures) {
    case 'pullDown':
      return atMost(limits.pullDown_s);
    case 'applyTime':
      return atMost(limits.apply_s);
    case 'releaseTime':
      return atMost(limits.release_s);
    case 'residual':
      return atMost(limits.residual_N);
    case 'outputWithout': {
      const { value, source } = limits.forceWithout_N;
      const expected = prediction?.expected ?? 0;
      return { limits: { low: expected - value, high: expected + value }, source };
    }
    case 'reserveForce':
      return (item.applications ?? 0) <= limits.applications.value ? atLeast(limits.reserveForce_N) : null;
    case 'tankLeft': {
      if (start === null) return null;
      const { value, source } = item.id.startsWith('standing')
        ? limits.standingLoss_PaPerS
        : limits.tankLoss_PaPerS;
      return { limits: { low: start - value * (item.elapsed_s ?? 0) }, source };
    }
    default:
      return null;
  }
}

/** Readings that are looked at for what they show, and judged against nothing. */
const NOTED = ['reserveForce', 'tankUsed', 'tankLeft', 'supplyApplied'];

/** What a healthy rod-acting servo shows at an item, before the reading is taken. */
export function expectWith(
  model: Family,
  context: Context,
  run: RunState,
  item: ReadingItem,
): Expectation | null {
  const { profile } = context;
  const blank = { expected: null, limits: null, limitSource: '', terms: [], gaugeScale: null, notes: [] };
  if (item.measures === 'zero') return { ...blank, expected: 0 };
  if (item.measures === 'supply') {
    if (holdStart(item) !== null || /^(static|standing|reserve)\./.test(item.id)) return null;
    const { value, source } = profile.limits.supplyNeed_Pa;
    return { ...blank, limits: { low: value }, limitSource: source };
  }
  const prediction = predict(model, context, run, item);
  const start = startOfWait(context, run, item);
  const own = ownLimits(profile, item, prediction, start);
  if (!prediction) return own && { ...blank, limits: own.limits, limitSource: own.source };
  const { limits } = profile;
  const common = { ...blank, expected: prediction.expected, terms: prediction.terms };
  if (own) return { ...common, limits: own.limits, limitSource: own.source };
  if (NOTED.includes(item.measures)) return common;
  const sources = new Set([limits.effectiveArea_fraction.source, limits.lift_Pa.source]);
  return { ...common, limits: prediction.band, limitSource: [...sources].join('; ') };
}

/** The reading from which a wait is counted; null where the item does not end one. */
function startOfWait(context: Context, run: RunState, item: ReadingItem): number | null {
  const start = holdStart(item);
  return start === null
    ? null
    : (measuredItem(instrumentsOf(context.rig, context.shelf), run, start)?.value_SI ?? null);
}
