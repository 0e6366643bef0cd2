import type { CautionId } from '../../contract/cautions';
import type { Fault, Look, Part } from '../../contract/family';
import { moving } from '../../model/vectors';
import { part } from '../part-kinds';
import { grown, left } from '../severity';
import { parameters } from './member';

const moves = moving(parameters);
const APART: readonly CautionId[] = ['stored-charge', 'wakes-itself'];

const shrunk = left(0.8, 0.3);
const risen = grown(1, 5);

/** Faults of a capacitor store, named and weighted as in handbook-models 8.9: either has half of the weight. */
export const faults: readonly Fault[] = [
  {
    id: 'capacitor-weak',
    prior: 6 / 2,
    brings: ['lamp'],
    name: 'capacitor weak',
    plain: 'The capacitor that is to brake when the battery fails holds much less than it did.',
    apply: moves((p, s) => ({ capacitance_F: p.capacitance_F * shrunk(s) })),
    signs: { yellow: 'lit' },
    confirm: 'Battery off, the volts fall further from stop to stop than they should.',
    repair: 'Renew the capacitor store, discharged and measured; count the stops again.',
    parts: ['capacitor'],
    cautions: APART,
  },
  {
    id: 'capacitor-resists',
    prior: 6 / 2,
    brings: ['lamp'],
    name: 'capacitor’s own resistance risen',
    plain:
      'The capacitor holds what it should, and gives it up too slowly: its volts fall away during a stop.',
    apply: moves((p, s) => ({ esr_Ohm: p.esr_Ohm * (1 + risen(s)) })),
    signs: { yellow: 'lit' },
    confirm: 'Low during each stop, and back where it should be as soon as the stop is over.',
    repair: 'Renew the capacitor store, discharged and measured; count the stops again.',
    parts: ['capacitor'],
    cautions: APART,
  },
];

export const looks: readonly Look[] = [];

export const parts: readonly Part[] = [
  part('capacitor', 'Capacitor store', ['dead', 'volts', 'lamps', 'store', 'emptied'], ['store']),
];
