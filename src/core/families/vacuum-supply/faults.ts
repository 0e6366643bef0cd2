import type { Fault, Look, Part, Port } from '../../contract/family';
import type { Vector } from '../../model/descriptor';
import { moving, placeOf } from '../../model/vectors';
import { line, part } from '../part-kinds';
import { grown, left } from '../severity';
import { parameters, type Parameters } from './member';

/** From just begun to severe. Handbook-models 9. */
const manifoldLeak = grown(1e-9, 1.5e-8);
const timing_Pa = grown(3e3, 12e3);
const suctionLeft = left(0.8, 0.3);
const reachLost = grown(0.1, 0.4);
const switchOff_Pa = grown(3e3, 15e3);
const hoseLeft = left(0.3, 0.02);
const hoseLeak = grown(1e-10, 5e-9);
const checkLeak = grown(1e-11, 1e-9);
const tankLeak = grown(1e-11, 1e-9);
/** A valve that is stuck open lets all of it back, one that is shut or reversed opens at no difference that there is. */
const STUCK_OPEN_M3_PER_S_PA = 1e-8;
const SHUT_PA = 1.2e5;

const moves = moving(parameters);
const place = (id: (typeof parameters)[number]['id']) => placeOf(parameters, id);
const ELECTRIC = place('electric');
const SHARE = place('floorShare');
const electric = (healthy: Vector) => healthy[ELECTRIC]! > 0;
const enginePump = (healthy: Vector) => !electric(healthy) && healthy[SHARE]! > 0;
const manifold = (healthy: Vector) => healthy[SHARE] === 0;

/** What wear leaves of a pump: it reaches less, and slower. */
const worn = (p: Parameters, severity: number): Partial<Parameters> => ({
  suction_m3PerS: p.suction_m3PerS * suctionLeft(severity),
  floorShare: p.floorShare + reachLost(severity),
});

/** Faults of a vacuum supply, named as in handbook 9. */
export const faults: readonly Fault[] = [
  {
    id: 'manifold-leak',
    prior: 8,
    brings: ['hard'],
    name: 'air leak at the manifold',
    fits: manifold,
    plain: 'The engine draws air where it should not, so it makes less vacuum for the brake.',
    apply: moves((p, s) => ({ sourceLeak_m3PerSPa: p.sourceLeak_m3PerSPa + manifoldLeak(s) })),
    signs: {},
    confirm:
      'Vacuum is low at the manifold and at the booster alike; idle is high or uneven. Smoke shows where.',
    repair: 'Renew the gasket or hose that leaks; read the vacuum again.',
    parts: ['engine'],
    cautions: ['running-engine'],
  },
  {
    id: 'timing',
    prior: 5,
    brings: ['hard'],
    name: 'late timing or a worn engine',
    fits: manifold,
    plain: 'The engine itself makes less vacuum than it should.',
    apply: moves((p, s) => ({ floor_Pa: p.floor_Pa + timing_Pa(s) })),
    signs: {},
    confirm: 'Vacuum is low at the manifold with no leak to be found; compression or timing is off.',
    repair: 'Mend the engine; until then the brake has less help, and the owner is told.',
    parts: ['engine'],
    cautions: ['running-engine'],
  },
  {
    id: 'pump-worn',
    prior: 6,
    brings: ['hard', 'fades'],
    name: 'engine-driven vacuum pump worn',
    fits: enginePump,
    plain: 'The vacuum pump is worn: it reaches less, and slower.',
    apply: moves(worn),
    signs: {},
    confirm: 'Vacuum is low at the pump with the hose plugged.',
    repair: 'Renew the pump; read the vacuum again.',
    parts: ['engine'],
    cautions: ['running-engine'],
  },
  {
    id: 'electric-worn',
    prior: 5,
    brings: ['hard'],
    name: 'electric vacuum pump worn',
    fits: electric,
    plain: 'The electric vacuum pump is worn: it runs longer than it should and may never stop.',
    apply: moves(worn),
    signs: { 'pump-rest': 'runs' },
    confirm: 'With the hose plugged the pump alone does not reach the vacuum at which it should stop.',
    repair: 'Renew the pump; read its thresholds again.',
    parts: ['engine'],
    cautions: ['vacuum'],
  },
  {
    id: 'electric-dead',
    prior: 6,
    brings: ['hard', 'lamp'],
    name: 'electric vacuum pump dead',
    fits: electric,
    plain: 'The electric vacuum pump does not run, so there is no help for the brake.',
    apply: moves((_p, s) => (s === 0 ? {} : { floorShare: 1 })),
    signs: {},
    confirm:
      'No sound with the ignition on and the pedal pumped. Fuse, relay and plug first; then the motor.',
    repair: 'Mend the feed or renew the pump; read its thresholds again.',
    parts: ['engine'],
    cautions: [],
  },
  {
    id: 'electric-switch',
    prior: 4,
    brings: ['hard'],
    name: 'vacuum sensor or switch of the pump off its mark',
    fits: electric,
    plain: 'The pump is told to stop too early, so the brake has less help than it could.',
    apply: moves((p, s) => ({ on_Pa: p.on_Pa - switchOff_Pa(s), off_Pa: p.off_Pa - switchOff_Pa(s) })),
    signs: {},
    confirm:
      'A gauge at the booster shows other thresholds than the maker names, and the pump alone reaches them.',
    repair: 'Renew the sensor or switch; read its thresholds again.',
    parts: ['engine'],
    cautions: [],
  },
  {
    id: 'hose-blocked',
    prior: 8,
    brings: ['hard', 'fades'],
    name: 'vacuum hose blocked or narrowed',
    plain: 'The hose is nearly shut inside: the help is there once, and comes back slowly.',
    apply: moves((p, s) => ({ hose_m3PerSPa: p.hose_m3PerSPa * hoseLeft(s) })),
    signs: {},
    confirm:
      'Every gauge that stands still is right; after a release the vacuum comes back slowly. The hose is swollen inside.',
    repair: 'Renew the hose with one for vacuum, of the right bore; time the recovery again.',
    parts: ['hose'],
    cautions: ['vacuum'],
  },
  {
    id: 'hose-collapsing',
    prior: 3,
    brings: ['hard', 'fades'],
    name: 'vacuum hose collapsing',
    plain: 'The hose is soft and is sucked flat, so the help comes back slowly.',
    apply: moves((p, s) => ({ collapse: p.collapse * hoseLeft(s) })),
    signs: { hose: 'poor' },
    confirm: 'The hose goes flat as the vacuum gets deep; the last part of the recovery is slow.',
    repair: 'Renew the hose with one for vacuum.',
    parts: ['hose'],
    cautions: ['vacuum'],
  },
  {
    id: 'hose-leak',
    prior: 6,
    brings: ['hard', 'fades', 'hiss'],
    name: 'vacuum hose leak',
    plain: 'The hose leaks, so the booster gets less vacuum and keeps it for less long.',
    apply: moves((p, s) => ({ hoseLeak_m3PerSPa: p.hoseLeak_m3PerSPa + hoseLeak(s) })),
    signs: {},
    confirm: 'The vacuum falls at rest, with the source side capped too; the hose hisses.',
    repair: 'Renew the hose; test decay again.',
    parts: ['hose'],
    cautions: ['vacuum'],
  },
  {
    id: 'check-leak',
    prior: 12,
    brings: ['fades'],
    name: 'check valve leaking',
    plain: 'The valve that should keep the vacuum in the booster lets it back.',
    apply: moves((p, s) => ({ back_m3PerSPa: p.back_m3PerSPa + checkLeak(s) })),
    signs: { 'one-way': 'both' },
    confirm: 'The vacuum falls at rest and stays with the source side capped.',
    repair: 'Renew the check valve and its grommet; test decay again.',
    parts: ['check-valve'],
    cautions: ['vacuum'],
  },
  {
    id: 'check-open',
    prior: 3,
    brings: ['fades'],
    name: 'check valve stuck open',
    plain:
      'The valve that should keep the vacuum does not shut at all: with the engine off there is no help left.',
    apply: moves((p, s) => (s === 0 ? {} : { back_m3PerSPa: p.back_m3PerSPa + STUCK_OPEN_M3_PER_S_PA * s })),
    signs: { rush: 'none', 'one-way': 'both' },
    confirm: 'No rush of air as the valve is pulled; the bulb blows both ways.',
    repair: 'Renew the check valve; count the reserve again.',
    parts: ['check-valve'],
    cautions: ['vacuum'],
  },
  {
    id: 'check-shut',
    prior: 3,
    brings: ['hard'],
    name: 'check valve stuck shut or reversed',
    plain: 'The valve lets no vacuum through to the booster.',
    apply: moves((p, s) => (s === 0 ? {} : { crack_Pa: SHUT_PA })),
    signs: { 'one-way': 'both', rush: 'none' },
    confirm:
      'Vacuum at the manifold and none at the booster, or it comes back in minutes; turned round it is right.',
    repair: 'Fit the valve the right way round, or renew it.',
    parts: ['check-valve'],
    cautions: ['vacuum'],
  },
  {
    id: 'tank-leak',
    prior: 2,
    brings: ['fades'],
    name: 'vacuum tank leak',
    plain: 'The vacuum tank leaks, so the stored help does not last.',
    apply: moves((p, s) => ({ hoseLeak_m3PerSPa: p.hoseLeak_m3PerSPa + tankLeak(s) })),
    signs: {},
    confirm: 'The vacuum falls at rest and stays with the tank clamped off.',
    repair: 'Renew the tank or its joints; test decay again.',
    parts: ['hose'],
    cautions: ['vacuum'],
  },
];

/** How far each look can be trusted. Handbook-models 8.3. */
export const looks: readonly Look[] = [
  { item: 'rush', miss: 0.1, falseAlarm: 0.05 },
  { item: 'one-way', miss: 0.1, falseAlarm: 0.05 },
  { item: 'hose', miss: 0.15, falseAlarm: 0.05 },
  { item: 'pump-rest', miss: 0.1, falseAlarm: 0.05 },
];

const SUPPLIED = ['rest', 'source', 'switch', 'recovery', 'check'];
const KEPT = ['decay', 'capped', 'airtight', 'reserve', 'standing'];
const ASSISTED = ['start', 'with', 'apply'];

/** What can be changed in a vacuum supply, and what that makes stale. */
export const parts: readonly Part[] = [
  part('engine', 'Engine or vacuum pump', [...SUPPLIED, ...ASSISTED, ...KEPT], []),
  // One that is shut holds back what an unassisted stroke presses out.
  part('check-valve', 'Check valve', [...SUPPLIED, ...KEPT, ...ASSISTED, 'without', 'sweep'], ['supply']),
  line('hose', 'Hose or tank of the vacuum', [...SUPPLIED, ...KEPT, ...ASSISTED], ['supply']),
];

export const leakPoints: readonly Port[] = [
  { id: 'check-valve', name: 'Check valve', short: 'Check', quantity: null },
  { id: 'hose', name: 'Vacuum hose', short: 'Hose', quantity: null },
];
