import type { CautionId } from '../../contract/cautions';
import { SHOWN_BY_UNIT, type Fault, type Look, type Part } from '../../contract/family';
import { moving } from '../../model/vectors';
import { part } from '../part-kinds';
import { left } from '../severity';
import { parameters } from './member';

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['held-by-check-valves', 'open-line'];

const worn = left(0.8, 0.3);

const pumpWorn = (circuit: 'front' | 'rear'): Fault => ({
  id: `pump-worn-${circuit}`,
  // Either outlet has half of the weight.
  prior: 6 / 2,
  brings: ['lamp', 'slow'],
  name: `pump worn, ${circuit} circuit`,
  plain: `The pump gives the ${circuit} circuit too little, so its lamp goes out late.`,
  apply: moves((p, s) =>
    circuit === 'front' ? { front_m3: p.front_m3 * worn(s) } : { rear_m3: p.rear_m3 * worn(s) },
  ),
  signs: {},
  confirm: `Lamp and cut-out of the ${circuit} circuit late by the same part, its flick-up as it should be.`,
  repair: 'Look at its suction and its drive first; then renew the pump and time both circuits again.',
  parts: ['pump'],
  cautions: OPENING,
});

/** Faults of an engine-driven pump, named and weighted as in handbook-models 8.6. */
export const faults: readonly Fault[] = [pumpWorn('front'), pumpWorn('rear')];

/** None of its own: what it does is timed. */
export const looks: readonly Look[] = [];

export const parts: readonly Part[] = [
  part('pump', 'Pump', ['level', 'seep', 'charge', 'cycles', SHOWN_BY_UNIT.flow], ['supply', 'supply-2']),
];
