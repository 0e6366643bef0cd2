import type { CautionId } from '../../contract/cautions';
import type { Fault, Look } from '../../contract/family';
import { moving } from '../../model/vectors';
import { grown, left } from '../severity';
import { parameters } from './member';

const moves = moving(parameters);
const APART: readonly CautionId[] = ['high-current', 'spring-casing', 'open-line'];
const PLUGS: readonly CautionId[] = ['high-current', 'pierced-lead'];

const MM = 1e-3;
const drifted = grown(0.15, 1);
const displaced = grown(0.3 * MM, 3 * MM);
const weak = left(0.9, 0.5);
const binding = grown(2, 9);
const slack = left(0.5, 0.02);
const limping = left(0.5, 0.02);
/** Further than any supply of a sensor: a track that is open or short. */
const RAILED_V = 50;

/** Faults of an electromechanical booster, named and weighted as in handbook-models 8.8: of the sensor’s three each has a third. */
export const faults: readonly Fault[] = [
  {
    id: 'track-railed',
    prior: 9 / 3,
    brings: ['lamp', 'hard'],
    name: 'one track open or short',
    plain: 'One of the two tracks of the pedal’s sensor stands at its supply whatever the pedal does.',
    apply: moves((_p, s) => (s === 0 ? {} : { drift_V: RAILED_V })),
    signs: { codes: 'stand' },
    confirm: 'One track at its supply at rest and pressed, the other as it should be: their sum is off.',
    repair: 'Pin by pin from plug to sensor; renew lead or sensor, and read both tracks over the stroke.',
    parts: ['sensor'],
    cautions: PLUGS,
  },
  {
    id: 'track-drift',
    prior: 9 / 3,
    brings: ['lamp'],
    name: 'one track drifted',
    plain: 'One of the two tracks of the pedal’s sensor reads off by the same everywhere.',
    apply: moves((_p, s) => ({ drift_V: drifted(s) })),
    signs: {},
    confirm: 'The sum of the tracks off by the same at rest and pressed.',
    repair: 'Renew the sensor, set it as the maker says, and read both tracks over the stroke.',
    parts: ['sensor'],
    cautions: PLUGS,
  },
  {
    id: 'tracks-swapped',
    prior: 9 / 3,
    brings: ['lamp', 'hard'],
    name: 'tracks swapped',
    plain: 'The two tracks of the pedal’s sensor have changed places at a plug.',
    apply: moves((_p, s) => (s === 0 ? {} : { swapped: 1 })),
    signs: {},
    confirm: 'Their sum as it should be, and yet at rest the first stands where the second should.',
    repair: 'Put the pins right as drawn; read both tracks at rest and pressed.',
    parts: ['sensor'],
    cautions: PLUGS,
  },
  {
    id: 'magnet-displaced',
    prior: 3,
    brings: ['grabs', 'lamp'],
    name: 'magnet displaced',
    plain:
      'The magnet of the pedal’s sensor sits off its place: at rest it tells of a foot that is not there.',
    apply: moves((_p, s) => ({ magnet_m: displaced(s) })),
    signs: {},
    confirm: 'Both tracks off at rest by as much, one up and one down: their sum does not show it.',
    repair: 'Set magnet and sensor as the maker says; at rest both must tell of none.',
    parts: ['sensor'],
    cautions: APART,
  },
  {
    id: 'motor-weak',
    prior: 4,
    brings: ['hard'],
    name: 'motor weak',
    plain: 'The motor pushes less for each ampere than it did: it draws more and runs out early.',
    apply: moves((p, s) => ({ perAmpere_N: p.perAmpere_N * weak(s), stall_N: p.stall_N * weak(s) })),
    signs: {},
    confirm: 'Current up at every force, runout early, nothing much lost in feed or earth.',
    repair: 'Renew motor and gear, or the booster; read current and runout again.',
    parts: ['motor'],
    cautions: APART,
  },
  {
    id: 'gear-binds',
    prior: 5,
    brings: ['drags', 'hard'],
    name: 'gear binds',
    plain:
      'The gear turns hard: eased off, the pressure stays, and without power the foot has to push it along.',
    apply: moves((p, s) => ({ friction_N: p.friction_N * (1 + binding(s)) })),
    signs: { returns: 'slow' },
    confirm:
      'Less than the foot should make with the power off, and a wide way between pressing and easing off.',
    repair: 'Renew the gear, or the booster; press without power and read again.',
    parts: ['motor'],
    cautions: APART,
  },
  {
    id: 'spring-broken',
    prior: 1,
    brings: ['drags'],
    name: 'return spring broken',
    plain: 'The spring that brings the booster back is broken or tired.',
    apply: moves((p, s) => ({ spring_N: p.spring_N * slack(s) })),
    signs: { returns: 'slow' },
    confirm:
      'Let go, the pedal comes back slowly or not at all; without power a little more pressure than it should.',
    repair:
      'Do not open the casing on the bench: the maker’s press and procedure, or a booster that was rebuilt.',
    parts: ['return-spring'],
    cautions: APART,
  },
  {
    id: 'limp',
    prior: 8,
    brings: ['hard', 'lamp'],
    name: 'limp mode',
    plain: 'The control unit keeps its motor back: it has found something, and says so.',
    apply: moves((p, s) => ({ limit_N: p.limit_N * limping(s) })),
    signs: { codes: 'stand' },
    confirm:
      'Runout early with volts, current for each newton and tracks as they should be, and a trouble code that stands.',
    repair: 'Put right what the code names, clear it as the maker says, and read runout again.',
    parts: ['control'],
    cautions: [],
  },
];

/** What is looked at, and how far that can be trusted. */
export const looks: readonly Look[] = [
  { item: 'codes', falseAlarm: 0.05, miss: 0.1 },
  { item: 'returns', falseAlarm: 0.03, miss: 0.3 },
];
