import { SHOWN_BY_UNIT, type Fault, type Look, type Part } from '../../contract/family';
import { moving } from '../../model/vectors';
import { line, part } from '../part-kinds';
import { grown } from '../severity';
import { WHEELS } from '../wheel-lines';
import { parameters } from './member';

const moves = moving(parameters);

/** Handbook-models 10: in both front lines together. */
const air = grown(2e-6, 2e-5);

/** Faults of four brakes, named and weighted as in handbook-models 10. */
export const faults: readonly Fault[] = [
  {
    id: 'air',
    prior: 8,
    brings: ['soft', 'low'],
    name: 'air in the front brakes',
    plain:
      'There is air in the lines to the front brakes: with the power gone the pedal goes far down and may run out of stroke.',
    apply: moves((_p, s) => ({ air_m3: air(s) / 2 })),
    signs: {},
    confirm: 'With the power off the pedal goes further than it should, and less far once bled.',
    repair:
      'Bleed in the maker’s order with the right fluid, as the maker has the valves opened; press without power again.',
    parts: ['front-brakes'],
    cautions: ['held-by-check-valves', 'open-line', 'fluids'],
  },
];

export const looks: readonly Look[] = [];

const PRESSED = [SHOWN_BY_UNIT.pressure, 'after'];
const SHOWN = [...PRESSED, SHOWN_BY_UNIT.travel];

export const parts: readonly Part[] = [
  part('front-brakes', 'Front brakes', SHOWN, ['supply', 'front-left', 'front-right']),
  part('rear-brakes', 'Rear brakes', SHOWN, ['supply', 'rear-left', 'rear-right']),
  ...WHEELS.map(({ id, port, name }) =>
    line(`line-${id}`, `Line to the brake ${name}`, SHOWN, ['supply', port]),
  ),
];
