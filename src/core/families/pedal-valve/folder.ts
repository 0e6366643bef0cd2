import type { FamilyCurve, MemberFolder } from '../../contract/family';
import type { LoggedUnit } from '../../contract/logged-unit';
import { WARM_OIL_K } from '../bench-members';
import { faults, looks } from './faults';
import { leakPoints, partsWith } from './places';
import { pedalValveProfile, type PedalValveProfile } from './profile';
import { keeps, results } from './rules';
import { stepsWith, type Cocks } from './steps';
import { typical } from './typical';

/** A dual pedal valve with two accumulators. Handbook-models 8.7. */
export const pedalValveFolder = (cocks: Cocks): MemberFolder<PedalValveProfile> => ({
  kind: 'pedal-valve',
  name: 'Dual pedal valve',
  role: 'unit',
  profile: pedalValveProfile,
  typical,
  faults,
  looks,
  steps: stepsWith(cocks),
  keeps: keeps.readings,
  results,
  parts: partsWith(cocks),
  gas: { 'pre-charge-1': 'accumulator-1', 'pre-charge-2': 'accumulator-2' },
  leakPoints,
});

/** What a technician knows it by. */
export const curve: FamilyCurve = {
  sources: ['rest.supply'],
  input: 'travel_m',
  output: 'output',
  releasing: 'releasing',
  knee: { reading: 'begins', word: 'begins' },
};

/** Inputs of a full application. @param charge_Pa what both accumulators are charged to */
export const fullOf = ({ stop_m }: PedalValveProfile, charge_Pa: number) => ({
  travel_m: stop_m,
  supply_Pa: charge_Pa,
  supply2_Pa: charge_Pa,
  oil_K: WARM_OIL_K,
});

/** What its traces are worked out with. */
export const loggedOf = ({
  shell_m3,
  preCharge_Pa,
}: PedalValveProfile): Pick<LoggedUnit, 'accumulators' | 'metered'> => ({
  accumulators: [
    { port: 'supply', name: 'accumulator 1', shell_m3, preCharge_Pa },
    { port: 'supply-2', name: 'accumulator 2', shell_m3, preCharge_Pa },
  ],
  metered: {
    travel: 'treadle',
    circuits: [
      { port: 'output', name: 'circuit 1' },
      { port: 'output-2', name: 'circuit 2' },
    ],
  },
});
