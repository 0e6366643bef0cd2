import type { HealthyVehicle } from '../../contract/family';
import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { ReadingId } from './member';
import type { PedalVacuumProfile } from './profile';
import { REST } from './steps';

/** An application helps while it makes this much more than the foot alone. Handbook 4. */
const WORTH = 1.1;

const band: Keeps<PedalVacuumProfile>['readings'][string] = {
  to: 'band',
  says: ({ limits }) => [limits.area_fraction, limits.reaction_fraction],
};

/** What the readings of a booster must keep to. Handbook-models 8.3. */
export const keeps = {
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
} satisfies Partial<Record<ReadingId, Keeps<PedalVacuumProfile>['readings'][string]>>;

/** Results of the booster's tests. */
export function results(profile: PedalVacuumProfile, vehicle: HealthyVehicle): ResultRule[] {
  const { limits, moderate_N, light_N, heavy_N } = profile;
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
    planned_s: id === 'standing' ? profile.standing_s : 120,
  });
  const gain = (i: number): ResultRule => ({
    of: 'parameter',
    id: `gain.${i}`,
    name: `Assist gain G at ${i === 1 ? light_N : heavy_N} N`,
    step: 'without',
    quantity: 'ratio',
    from: { with: `with.${i}.pressure`, without: `without.${i}.pressure` },
    value: ({ with: assisted = 0, without = 0 }) => (without > 0 ? assisted / without : NaN),
  });
  return [
    byItem('supply-need', REST, 'Vacuum, against what the booster needs', 'supply', {
      limits: { low: limits.supplyNeed_Pa.value },
      source: limits.supplyNeed_Pa.source,
    }),
    loss('decay', 'Vacuum lost at rest'),
    loss('capped', 'Vacuum lost, source side capped'),
    byItem('drop', 'start.drop', 'Pedal drop as the engine starts'),
    byItem('with.1', 'with.1.pressure', `Pressure with assist, ${light_N} N`),
    byItem('with.2', 'with.2.pressure', `Pressure with assist, ${heavy_N} N`),
    byItem('without.1', 'without.1.pressure', `Pressure without assist, ${light_N} N`),
    byItem('without.2', 'without.2.pressure', `Pressure without assist, ${heavy_N} N`),
    gain(1),
    gain(2),
    // Spring and friction cancel, and only beyond runout does all of the vacuum work. Handbook-models 8.3.
    {
      of: 'parameter',
      id: 'effective-area',
      name: 'Effective area',
      step: 'without',
      quantity: 'area',
      from: { with: 'with.2.pressure', without: 'without.2.pressure', supply: 'with.supply' },
      value: ({ with: assisted = 0, without = 0, supply = 0 }) =>
        supply > 0 ? ((assisted - without) * pushed_m2) / supply : NaN,
      nominal: { value: profile.area_m2, part: limits.area_fraction },
    },
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
