import type { AssessRules } from '../../contract/assess-rules';
import type { Keeps, Limit } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import { middleOf } from './steps';
import type { PedalValveProfile } from './profile';

/** A spool begins to move within this of where it should, m. */
const BEGINS_M = 0.5e-3;

/** What the readings of a dual pedal valve must keep to. Handbook-models 8.7. */
export const keeps: Keeps<PedalValveProfile> = {
  supply: () => null,
  readings: {
    begins: { to: 'about', least: ({ limits }) => ({ ...limits.output_fraction, value: BEGINS_M }) },
    residual: { to: 'at-most', limit: ({ limits }) => limits.residual_Pa },
    peak: { to: 'about', least: ({ limits }) => limits.peak_Pa },
    applyTime: { to: 'at-most', limit: ({ limits }) => limits.apply_s },
    crossed: { to: 'at-most', limit: ({ limits }) => limits.cross_Pa },
    kept: { to: 'at-least', limit: aboveLamp },
    kept2: { to: 'at-least', limit: aboveLamp },
    flickUp: { to: 'band', says: ({ limits }) => [limits.preCharge_fraction] },
    flickUp2: { to: 'band', says: ({ limits }) => [limits.preCharge_fraction] },
    left: { to: 'band', says: ({ limits }) => [limits.clearance_fraction, limits.preCharge_fraction] },
    left2: { to: 'band', says: ({ limits }) => [limits.clearance_fraction, limits.preCharge_fraction] },
    maximum: { to: 'band', says: ({ limits }) => [limits.maximum_fraction, limits.output_fraction] },
  },
  otherwise: { to: 'band', says: ({ limits }) => [limits.output_fraction, limits.hysteresis_Pa] },
};

/** Above the lamp for as many applications as there must be; those beyond show where the reserve ends. */
function aboveLamp(
  { lamp_Pa, limits }: PedalValveProfile,
  { applications = 0 }: { readonly applications?: number },
): Limit | null {
  const { applications: least } = limits;
  return applications <= least.value ? { ...least, value: lamp_Pa } : null;
}

/** Every result of a dual pedal valve’s bench test, in the order of the steps. */
export function results(profile: PedalValveProfile): ResultRule[] {
  const { sweep_m, limits, lamp_Pa } = profile;
  const middle = `sweep.${middleOf(profile) + 1}`;
  const atMost = (limit: Limit) => ({ limits: { high: limit.value }, source: limit.source });
  const reserve = (circuit: 1 | 2): ResultRule => ({
    of: 'count',
    id: `applications-${circuit}`,
    name: `Full applications above the lamp, circuit ${circuit}`,
    step: 'reserve',
    measures: circuit === 1 ? 'kept' : 'kept2',
    least: lamp_Pa,
    limit: limits.applications,
  });
  return [
    byItem('pre-charge-1', 'flick.supply', 'Flick-up, accumulator 1'),
    byItem('pre-charge-2', 'flick.supply2', 'Flick-up, accumulator 2'),
    byItem('charge-1', 'rest.supply', 'Charge, accumulator 1', 'supply'),
    byItem('charge-2', 'rest.supply2', 'Charge, accumulator 2', 'supply'),
    byItem('oil', 'oil.warm', 'Oil', 'supply'),
    byItem('begins', 'begin.travel', 'Travel at which pressure begins'),
    ...sweep_m.flatMap((_, i) => [
      byItem(`output-1.${i + 1}`, `sweep.${i + 1}.output`, `Circuit 1 at travel ${i + 1}`),
      byItem(`output-2.${i + 1}`, `sweep.${i + 1}.output2`, `Circuit 2 at travel ${i + 1}`),
    ]),
    {
      of: 'parameter',
      id: 'match',
      name: 'Circuit 1 over circuit 2',
      step: 'sweep',
      quantity: 'pressure',
      from: { one: `${middle}.output`, two: `${middle}.output2` },
      value: ({ one = 0, two = 0 }) => Math.abs(one - two),
      against: atMost(limits.match_Pa),
    },
    {
      of: 'parameter',
      id: 'hysteresis',
      name: 'Coming down over going up',
      step: 'sweep',
      quantity: 'pressure',
      from: { up: `${middle}.output`, down: 'down.output' },
      value: ({ up = 0, down = 0 }) => down - up,
      against: atMost(limits.hysteresis_Pa),
    },
    byItem('peak', 'hold.peak', 'Highest, pressed at once'),
    byItem('held', 'hold.output', 'Circuit 1 after the hold'),
    byItem('residual', 'residual.output', 'Left in circuit 1, released'),
    byItem('maximum', 'maximum.output', 'Circuit 1 at the stop'),
    byItem('apply-time', 'apply.time', 'Apply time'),
    byItem('cross-leak', 'cross.output2', 'Come across into circuit 2'),
    reserve(1),
    reserve(2),
    byItem('standing-1', 'left.supply', 'Accumulator 1 after standing'),
    byItem('standing-2', 'left.supply2', 'Accumulator 2 after standing'),
  ];
}

/** An accumulator that was not charged in full empties sooner. */
export const assessRules = (): AssessRules => {
  const shortfall = (circuit: 1 | 2) => ({
    words: `What falls short is the charge: accumulator ${circuit} stands at {value}, and it is charged to {low} at least.`,
    quantity: 'pressure' as const,
  });
  return {
    room: 'rest.supply',
    shortfalls: {
      'charge-1': shortfall(1),
      'charge-2': shortfall(2),
      oil: {
        words:
          'What falls short is the oil: it is at {value}, and a valve is judged from {low} on. Warm it and test again.',
        quantity: 'temperature',
      },
    },
    decisive: ['maximum', 'hysteresis'],
    excuses: {
      'charge-1': ['applications-1', 'maximum', 'standing-1'],
      'charge-2': ['applications-2', 'standing-2'],
      oil: ['peak', 'held', 'throbs', 'standing-1', 'standing-2'],
    },
  };
};
