import { pushingArea_m2 } from '../../air/diaphragm';
import type { Contradiction, HealthyWhole } from '../../contract/family';
import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { ReadingId } from './member';
import type { PedalVacuumProfile } from './profile';
import { REST } from './steps';

/** An application helps while it makes this much more than the foot alone. Handbook 4. */
export const WORTH = 1.1;

const band: Keeps<PedalVacuumProfile>['readings'][string] = {
  to: 'band',
  says: ({ limits }) => [limits.area_fraction, limits.reaction_fraction],
};

/** What the readings of a booster must keep to. Handbook-models 8.3. */
export const keeps = {
  'load.pressure': band,
  drop: band,
  supplyApplied: { to: 'noted' },
  applyTime: { to: 'at-most', limit: ({ limits }) => limits.apply_s },
  rise: { to: 'at-most', limit: ({ limits }) => limits.rise_m },
  left: { to: 'start', lossPerS: ({ limits }) => limits.decay_PaPerS },
  leftCapped: { to: 'start', lossPerS: ({ limits }) => limits.decay_PaPerS },
  clearance: {
    to: 'range',
    low: ({ clearance_m, limits: { clearance_m: limit } }) => ({
      ...limit,
      value: clearance_m - limit.value,
    }),
    high: ({ clearance_m, limits: { clearance_m: limit } }) => ({
      ...limit,
      value: clearance_m + limit.value,
    }),
  },
} satisfies Partial<Record<ReadingId | 'load.pressure', Keeps<PedalVacuumProfile>['readings'][string]>>;

/** Assist gain at the lighter or heavier force, quoted with it; it is read last in a step. Handbook-models 8.3. */
export const gainOf = (i: 1 | 2, step: string): ResultRule => ({
  of: 'parameter',
  id: `gain.${i}`,
  name: `Assist gain G at the ${i === 1 ? 'lighter' : 'heavier'} force`,
  step,
  quantity: 'ratio',
  from: { with: `with.${i}.pressure`, without: `without.${i}.pressure` },
  value: ({ with: assisted = 0, without = 0 }) => (without > 0 ? assisted / without : NaN),
});

/**
 * Effective area from the heavier force, with vacuum and without. Spring and friction cancel, and only beyond runout does all of
 * the vacuum work. Handbook-models 8.3.
 *
 * @param pushed_m2 what the rod pushes on
 */
export const areaOf = (
  { area_m2, limits }: PedalVacuumProfile,
  pushed_m2: number,
  step: string,
): ResultRule => ({
  of: 'parameter',
  id: 'effective-area',
  name: 'Effective area',
  step,
  quantity: 'area',
  from: { with: 'with.2.pressure', without: 'without.2.pressure', supply: 'with.2.supply' },
  value: ({ with: with_Pa = 0, without: without_Pa = 0, supply: vacuum_Pa = 0 }) =>
    pushingArea_m2({ with_Pa, without_Pa, vacuum_Pa, masterArea_m2: pushed_m2 }),
  nominal: { value: area_m2, part: limits.area_fraction },
});

/** Results of the booster's tests. */
export function results(profile: PedalVacuumProfile, vehicle: HealthyWhole): ResultRule[] {
  const { limits, moderate_N, heavy_N } = profile;
  const heavy = { pedal_N: heavy_N };
  // What the rod pushes on, from the whole: its force by the pressure that this makes.
  const pushed_m2 = vehicle.shows('output', heavy) / vehicle.shows('load.pressure', heavy);
  const least = WORTH * vehicle.shows('load.pressure', { pedal_N: moderate_N });
  const loss = (id: string, name: string): ResultRule => ({
    of: 'loss',
    id: `${id}.loss`,
    name,
    step: id,
    start: `${id}.start`,
    end: `${id}.end`,
    quantity: 'depressionRate',
    limit: limits.decay_PaPerS,
    planned_s: id === 'standing' ? profile.standing_s : profile.decay_s,
  });
  return [
    byItem('supply-need', REST, 'Vacuum, against what the booster needs', 'supply', {
      limits: { low: limits.supplyNeed_Pa.value },
      source: limits.supplyNeed_Pa.source,
    }),
    loss('decay', 'Vacuum lost at rest'),
    loss('capped', 'Vacuum lost, source side capped'),
    byItem('drop', 'start.drop', 'Pedal drop as the engine starts'),
    byItem('with.1', 'with.1.pressure', 'Pressure with assist, lighter force'),
    byItem('with.2', 'with.2.pressure', 'Pressure with assist, heavier force'),
    byItem('without.1', 'without.1.pressure', 'Pressure without assist, lighter force'),
    byItem('without.2', 'without.2.pressure', 'Pressure without assist, heavier force'),
    gainOf(1, 'without'),
    gainOf(2, 'without'),
    areaOf(profile, pushed_m2, 'without'),
    byItem('airtight', 'airtight.end', 'Pedal rise, held with the engine off'),
    byItem('apply', 'apply.time', 'Apply time'),
    {
      of: 'count',
      id: 'reserve',
      name: 'Assisted applications, engine just stopped',
      step: 'reserve',
      measures: 'load.pressure',
      least,
      limit: limits.reserve,
    },
    loss('standing', 'Vacuum lost over the stand'),
    {
      of: 'count',
      id: 'standing-reserve',
      name: 'Assisted applications after the stand',
      step: 'standing',
      measures: 'load.pressure',
      least,
      limit: limits.standingReserve,
    },
    byItem('clearance', 'gap.rod', 'Clearance of the pushrod'),
  ];
}

/** Less vacuum than this part of what the booster needs assists nobody. */
const NONE = 0.15;
/** More assist than this part of the unassisted pressure is felt. */
const FELT = 1.5;

/** What was said that a gauge of the same test contradicts. */
export const contradictions = ({ limits }: PedalVacuumProfile): Contradiction[] => [
  {
    item: 'start.how',
    answer: 'good',
    from: [REST],
    when: (vacuum_Pa) => vacuum_Pa < NONE * limits.supplyNeed_Pa.value,
    say: 'Contradictory: the pedal dropped as the engine started, and the gauge at the booster showed no vacuum. Read the vacuum at the booster again, on another gauge.',
  },
  {
    item: 'start.how',
    answer: 'stayed',
    from: ['with.1.pressure', 'without.1.pressure'],
    when: (assisted_Pa, without_Pa) => assisted_Pa > FELT * without_Pa,
    say: 'Contradictory: the pedal stayed where it was, and with the engine running the same force made far more pressure. Exhaust and start again.',
  },
];
