import { SHOWN_BY_UNIT, type Fault, type Look, type Part } from '../../contract/family';
import { moving } from '../../model/vectors';
import { line, part } from '../part-kinds';
import { grown } from '../severity';
import { parameters } from './member';

const moves = moving(parameters);

/** Handbook-models 8.6. */
const air = grown(2e-6, 1e-5);

/** Faults of brakes on stored pressure, named and weighted as in handbook-models 8.6. */
export const faults: readonly Fault[] = [
  {
    id: 'air',
    prior: 5,
    brings: ['soft', 'low'],
    name: 'air behind the small master',
    plain: 'There is air in what the small master fills, so the pedal goes far down before it is firm.',
    apply: moves((_p, s) => ({ air_m3: air(s) })),
    signs: {},
    confirm:
      'Pedal travel long at a force, and shorter after bleeding; pressures of both circuits as they should be.',
    repair: 'Bleed in the maker’s order with the right fluid; read the travel at the same force again.',
    parts: ['small-master'],
    cautions: ['held-by-check-valves', 'open-line', 'fluids'],
  },
];

export const looks: readonly Look[] = [];

const PRESSURES = ['metering', 'applications'];
/** Where the rear brakes show besides is said by what lets pressure into them. */
const REAR_PRESSURES = [...PRESSURES, SHOWN_BY_UNIT.pressure];

export const parts: readonly Part[] = [
  part('small-master', 'Small master and what it fills', ['travel', 'seep'], ['supply', 'supply-2']),
  part('front-brakes', 'Front brakes', [...PRESSURES, 'seep'], ['supply', 'front']),
  part('rear-brakes', 'Rear brakes', [...REAR_PRESSURES, 'seep'], ['supply-2', 'rear']),
  line('front-line', 'Line to the front brakes', PRESSURES, ['supply', 'front']),
  line('rear-line', 'Line to the rear brakes', REAR_PRESSURES, ['supply-2', 'rear']),
];
