import type { CautionId } from '../../contract/cautions';
import type { Fault, Look, Part } from '../../contract/family';
import { moving } from '../../model/vectors';
import { part } from '../part-kinds';
import { grown } from '../severity';
import { parameters } from './member';

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['held-by-check-valves', 'open-line'];

const rubbing = grown(0.5, 2);
const tired = grown(0.2, 0.8);
const past = grown(3, 15);
const worn = grown(1, 3);
const corroded = grown(0.06, 0.3);

/** Faults of a motor pump and its feed, named and weighted as in handbook-models 8.5. */
export const faults: readonly Fault[] = [
  {
    id: 'motor-worn',
    prior: 12,
    brings: ['runs-often', 'lamp'],
    name: 'pump motor worn',
    plain: 'The pump’s motor turns hard and tired: it draws more current and fills more slowly.',
    apply: moves((p, s) => ({
      friction_Nm: p.friction_Nm * (1 + rubbing(s)),
      motor_Ohm: p.motor_Ohm * (1 + tired(s)),
    })),
    signs: { labours: 'labours' },
    confirm: 'Current up at every pressure and the charge slow, with little lost in the feed.',
    repair: 'Renew the motor, or the pump with it; then charge from empty again.',
    parts: ['motor'],
    cautions: OPENING,
  },
  {
    id: 'motor-wet',
    prior: 5,
    brings: ['fluid', 'lamp'],
    name: 'fluid in the motor',
    plain: 'Brake fluid has crept into the pump’s motor. Current runs through it past the windings.',
    apply: moves((_p, s) => ({ shunt_A: past(s) })),
    signs: { 'wet-plug': 'wet' },
    confirm:
      'Current up by as much at every pressure, the charge as fast as ever; the plug or the motor wet.',
    repair: 'Renew motor and shaft seal. A plug that was wet is renewed with its terminals.',
    parts: ['motor', 'pump'],
    cautions: OPENING,
  },
  {
    id: 'vanes-worn',
    prior: 10,
    brings: ['runs-often', 'lamp'],
    name: 'pump worn',
    plain: 'The pump is worn and lets back much of what it moves, the more the warmer the fluid is.',
    apply: moves((p, s) => ({ leak_m3PerS: p.leak_m3PerS * (1 + worn(s)) })),
    signs: {},
    confirm:
      'The charge slows down as the pressure rises, current as it should be. Hot it may never switch off.',
    repair: 'Renew the pump; then charge from empty again, cold and warm.',
    parts: ['pump'],
    cautions: OPENING,
  },
  {
    id: 'feed-poor',
    prior: 9,
    brings: ['runs-often', 'lamp'],
    name: 'poor feed of the pump',
    plain: 'Cable, plug or relay of the pump has too much resistance, so the motor gets too few volts.',
    apply: moves((p, s) => ({ wiring_Ohm: p.wiring_Ohm + corroded(s) })),
    signs: { 'hot-connector': 'hot' },
    confirm: 'Volts lost between battery and motor while it runs, the current as it should be.',
    repair: 'Find where they are lost, by halves, running; renew plug, relay or cable there.',
    parts: ['feed'],
    cautions: [],
  },
];

/** What is looked at and listened to, and how far that can be trusted. Handbook-models 8.5. */
export const looks: readonly Look[] = [
  { item: 'labours', falseAlarm: 0.05, miss: 0.4 },
  { item: 'wet-plug', falseAlarm: 0.02, miss: 0.3 },
  { item: 'hot-connector', falseAlarm: 0.02, miss: 0.5 },
];

const RUNS = ['charge', 'feed', 'switch', 'off-times', 'relief'];

export const parts: readonly Part[] = [
  part('motor', 'Motor of the pump', ['outside', ...RUNS], ['supply']),
  part('pump', 'Pump', ['outside', ...RUNS], ['supply']),
  part('feed', 'Cable, plug and relay of the pump', RUNS, []),
];
