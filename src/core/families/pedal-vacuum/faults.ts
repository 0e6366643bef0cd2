import type { CautionId } from '../../contract/cautions';
import type { Fault, Look, Part, Port } from '../../contract/family';
import { moving } from '../../model/vectors';
import { line, part } from '../part-kinds';
import { grown, left, passage } from '../severity';
import { parameters } from './member';

/** From just begun to severe. Handbook-models 8.3. */
const seatLeak = grown(5e-11, 2e-8);
const shellLeak = grown(2e-11, 5e-9);
const beginRaised = left(1.5, 4);
const frictionRaised = left(2, 6);
const binding_N = grown(20, 150);
const rodLong_m = grown(0.2e-3, 1.5e-3);
const rodShort_m = grown(1e-3, 5e-3);
const discMissing = left(2, 5);
const discSwollen = left(0.9, 0.7);
const filterLeft = left(0.5, 0.02);
const hardened = left(0.95, 0.75);
const hardDrag_N = grown(20, 100);
const wrongArea = left(0.85, 0.6);

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['spring-casing', 'vacuum'];
const OFF_THE_MASTER: readonly CautionId[] = ['open-line', 'fluids'];

/** Faults of a pedal-mounted booster, named as in handbook 8.3. */
export const faults: readonly Fault[] = [
  {
    id: 'torn-diaphragm',
    prior: 12,
    brings: ['hard', 'fades'],
    name: 'torn diaphragm',
    plain:
      'The diaphragm has a hole: air passes it as long as the brake is pressed, so the help fades while you hold it.',
    apply: moves((p, s) => ({ tear_m3PerSPa: p.tear_m3PerSPa + passage(s) })),
    signs: { 'hiss-held': 'hiss' },
    confirm:
      'Nothing is lost at rest. Held with the engine off the pedal rises, and it hisses only while it is held.',
    repair: 'Renew the diaphragm or the booster; test airtight and two forces again.',
    parts: ['booster'],
    cautions: OPENING,
  },
  {
    id: 'vacuum-seat',
    prior: 6,
    brings: ['hard', 'fades'],
    name: 'control-valve vacuum seat leak',
    plain: 'The valve does not part the two chambers while the brake is pressed, so the help fades.',
    apply: moves((p, s) => ({ tear_m3PerSPa: p.tear_m3PerSPa + passage(s) })),
    signs: { 'hiss-held': 'hiss' },
    confirm:
      'As a torn diaphragm: nothing lost at rest, the pedal rises while it is held. Opened, the diaphragm is sound.',
    repair: 'Renew the control valve or the booster.',
    parts: ['valve'],
    cautions: OPENING,
  },
  {
    id: 'air-seat',
    prior: 10,
    brings: ['hiss', 'fades', 'drags'],
    name: 'control-valve atmosphere seat leak',
    plain: 'The air valve does not shut: the vacuum is lost while nothing is done, and the brake may drag.',
    apply: moves((p, s) => ({ seat_m3PerSPa: p.seat_m3PerSPa + seatLeak(s) })),
    signs: { 'hiss-rest': 'hiss', drag: 'drags' },
    confirm:
      'Hisses behind the pedal with the foot off; the vacuum falls at rest, with the source side capped too.',
    repair: 'Renew the control valve or the booster; test decay and reserve again.',
    parts: ['valve'],
    cautions: OPENING,
  },
  {
    id: 'shell-leak',
    prior: 8,
    brings: ['fades', 'hiss'],
    name: 'shell, hub or grommet leak',
    plain: 'Air comes into the booster from outside, so its stored vacuum does not last.',
    apply: moves((p, s) => ({ shell_m3PerSPa: p.shell_m3PerSPa + shellLeak(s) })),
    signs: { 'hiss-rest': 'hiss' },
    confirm:
      'The vacuum falls at rest with the source side capped; soap shows it at the seam, hub or grommet.',
    repair: 'Renew the grommet or the booster; test decay again.',
    parts: ['booster'],
    cautions: OPENING,
  },
  {
    id: 'valve-sticking',
    prior: 4,
    brings: ['hard', 'grabs', 'drags'],
    name: 'control valve sticking',
    plain: 'The valve moves late and lets go late: the pedal is hard at first, then grabs.',
    apply: moves((p, s) => ({
      begin_N: p.begin_N * beginRaised(s),
      friction_N: p.friction_N * frictionRaised(s),
    })),
    signs: { drag: 'drags' },
    confirm: 'Pressure is low at the lighter force and right at the heavier one.',
    repair: 'Renew the control valve or the booster; test two forces again.',
    parts: ['valve'],
    cautions: OPENING,
  },
  {
    id: 'rod-binding',
    prior: 4,
    brings: ['hard'],
    name: 'pedal rod binding',
    plain: 'The pedal or its rod is tight, so part of your effort never reaches the brake.',
    apply: moves((p, s) => ({ binding_N: p.binding_N + binding_N(s) })),
    signs: {},
    confirm:
      'Pressure is low with and without assist by the same effort. The pedal is stiff with the rod off.',
    repair: 'Free the pedal pivot and rod; test two forces again.',
    parts: ['pedal'],
    cautions: [],
  },
  {
    id: 'rod-long',
    prior: 3,
    brings: ['drags'],
    name: 'pushrod too long',
    plain: 'The pushrod holds the master cylinder open a little, so the brakes drag and get hot.',
    apply: moves((p, s) => ({ clearance_m: p.clearance_m - rodLong_m(s) })),
    signs: { drag: 'drags' },
    confirm:
      'Wheels are free with the master cylinder eased off the booster; the clearance measures too small.',
    repair: 'Set the pushrod to the maker’s clearance; look for drag again.',
    parts: ['pushrod'],
    cautions: OFF_THE_MASTER,
  },
  {
    id: 'rod-short',
    prior: 4,
    brings: ['low'],
    name: 'pushrod too short',
    plain: 'The pedal goes down before anything happens.',
    apply: moves((p, s) => ({ clearance_m: p.clearance_m + rodShort_m(s) })),
    signs: {},
    confirm: 'Travel is long and the pedal firm; the clearance measures too wide.',
    repair: 'Set the pushrod to the maker’s clearance.',
    parts: ['pushrod'],
    cautions: OFF_THE_MASTER,
  },
  {
    id: 'disc-missing',
    prior: 1,
    brings: ['grabs'],
    name: 'reaction disc missing',
    plain: 'A rubber disc inside is not there: the brake grabs at a touch.',
    apply: moves((p, s) => ({ jump_N: p.jump_N * discMissing(s), reaction: p.reaction * discMissing(s) })),
    signs: {},
    confirm: 'Pressure is far above the expected one at the lighter force.',
    repair: 'Fit the disc of this booster; test two forces again.',
    parts: ['pushrod'],
    cautions: OFF_THE_MASTER,
  },
  {
    id: 'disc-swollen',
    prior: 1,
    brings: ['hard'],
    name: 'reaction disc swollen',
    plain: 'A rubber disc inside has swollen: the brake helps less than it should.',
    apply: moves((p, s) => ({ reaction: p.reaction * discSwollen(s) })),
    signs: {},
    confirm: 'Pressure is low below runout and right beyond it; the disc is thick and soft.',
    repair: 'Renew the disc and find what fluid reached it.',
    parts: ['pushrod'],
    cautions: OFF_THE_MASTER,
  },
  {
    id: 'filter-blocked',
    prior: 4,
    brings: ['slow'],
    name: 'air filter blocked',
    plain: 'Air reaches the booster slowly, so the help comes late.',
    apply: moves((p, s) => ({ air_m3PerSPa: p.air_m3PerSPa * filterLeft(s) })),
    signs: { 'start.how': 'slowly' },
    confirm: 'Apply time is long, pressure right once it stands; with the filter out it is quick.',
    repair: 'Renew the filter and silencer; time it again.',
    parts: ['filter'],
    cautions: [],
  },
  {
    id: 'hardened-diaphragm',
    prior: 3,
    brings: ['hard', 'slow'],
    causes: ['torn-diaphragm'],
    name: 'hardened diaphragm',
    plain: 'The diaphragm is hard: it works on less area and moves stiffly.',
    apply: moves((p, s) => ({ area_m2: p.area_m2 * hardened(s), binding_N: p.binding_N + hardDrag_N(s) })),
    signs: {},
    confirm: 'Pressure beyond runout is low on a good vacuum that holds.',
    repair: 'Renew the diaphragm or the booster; test two forces again.',
    parts: ['booster'],
    cautions: OPENING,
  },
  {
    id: 'wrong-booster',
    prior: 1,
    brings: ['hard'],
    name: 'wrong booster fitted',
    plain: 'The booster is a smaller one than this vehicle should have.',
    apply: moves((p, s) => ({ area_m2: p.area_m2 * wrongArea(s) })),
    signs: {},
    confirm: 'Pressure beyond runout is low, everything else is right; its marking is another.',
    repair: 'Fit the right booster; test two forces again.',
    parts: ['booster'],
    cautions: OPENING,
  },
];

/** How far each look can be trusted. Handbook-models 8.3. */
export const looks: readonly Look[] = [
  { item: 'hiss-rest', miss: 0.15, falseAlarm: 0.05 },
  { item: 'hiss-held', miss: 0.15, falseAlarm: 0.05 },
  { item: 'drag', miss: 0.15, falseAlarm: 0.05 },
  { item: 'start.how', miss: 0.1, falseAlarm: 0.05 },
];

const VACUUM = [
  'rest',
  'source',
  'recovery',
  'decay',
  'capped',
  'start',
  'airtight',
  'apply',
  'reserve',
  'standing',
];
const FORCES = [
  'with',
  'without',
  'start',
  'airtight',
  'apply',
  'reserve',
  'standing',
  'sweep',
  'other-sweep',
];
const WHOLE = [...new Set([...VACUUM, ...FORCES])];

/** What can be changed on a booster, and what that makes stale. */
export const parts: readonly Part[] = [
  part('booster', 'Booster', [...WHOLE, 'gap', 'source', 'sink'], ['supply', 'front']),
  part('valve', 'Control valve of the booster', WHOLE, ['supply']),
  part('filter', 'Air filter of the booster', ['apply', 'start'], []),
  part('pushrod', 'Pushrod, or its disc', [...FORCES, 'gap', 'sink', 'recovery'], ['front']),
  part('pedal', 'Pedal, its pivot and rod', [...FORCES, 'recovery', 'sink'], []),
  line('vacuum-hose-end', 'Vacuum hose at the booster', VACUUM, ['supply']),
];

/** Where a hiss is looked for. */
export const leakPoints: readonly Port[] = [
  { id: 'air-seat', name: 'Air intake behind the pedal', short: 'Intake', quantity: null },
  { id: 'shell', name: 'Shell seam and hub', short: 'Shell', quantity: null },
];
