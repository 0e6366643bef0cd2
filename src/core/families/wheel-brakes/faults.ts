import type { CautionId } from '../../contract/cautions';
import { SHOWN_BY_UNIT, type Fault, type Look, type Part, type Port } from '../../contract/family';
import { moving } from '../../model/vectors';
import { line, part } from '../part-kinds';
import { grown, left } from '../severity';
import { parameters } from './member';

/** From just begun to severe. Handbook-models 10. */
const bypass = grown(3e-16, 1e-14);
const air_m3 = grown(2e-6, 2e-5);
const splitLeft = left(0.8, 0.5);

/** Part of take-up and give that one wheel has: a seized one keeps up to three tenths of it. */
const FRONT = 0.35;
const REAR = 0.25;
const seizedLeft = left(0.3, 0.01);
const seized = (share: number, severity: number) => 1 - share * (1 - seizedLeft(severity));

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['open-line', 'fluids'];
/** What stays of take-up and give with one circuit of two blocked. */
const HALF = 0.5;

/** Faults of what a booster drives, named as in handbook 10. */
export const faults: readonly Fault[] = [
  {
    id: 'master-bypass',
    prior: 6,
    brings: ['sinks'],
    name: 'master cylinder internal bypass',
    plain: 'Fluid slips past the seals inside the master cylinder, so the pedal sinks while you hold it.',
    apply: moves((p, s) => ({ bypass_m3PerSPa: p.bypass_m3PerSPa + bypass(s) })),
    signs: {},
    confirm:
      'The pedal sinks on a hold with the pressure and the level as they were, and nothing wet outside.',
    repair: 'Renew the master cylinder; bleed, and look at the pedal again.',
    parts: ['master'],
    cautions: OPENING,
  },
  {
    id: 'air',
    prior: 8,
    brings: ['soft', 'low'],
    name: 'air in the lines',
    plain: 'There is air in the brake lines, so the pedal is soft and goes far down.',
    apply: moves((p, s) => ({ air_m3: p.air_m3 + air_m3(s) })),
    signs: {},
    confirm:
      'Travel is long and the pedal springy; it gets better with pumping. Pressure at a force is right.',
    repair: 'Bleed, farthest wheel first, until no air comes.',
    parts: ['lines'],
    cautions: OPENING,
  },
  {
    id: 'tripped-shuttle',
    prior: 3,
    brings: ['lamp', 'hard'],
    name: 'tripped shuttle',
    plain:
      'A valve has shut one of the two brake circuits: the pedal stands high and hard though the booster is sound.',
    apply: moves((p, s) =>
      s === 0
        ? {}
        : { takeUp_m3: p.takeUp_m3 * HALF, stiffness_m3PerPa: p.stiffness_m3PerPa * HALF, rearOpen: 0 },
    ),
    signs: { 'pedal-high': 'high', 'axle.rear': 'stuck', lamp: 'loss' },
    confirm:
      'Pressure at a force is right, so the booster is cleared; travel is short, one axle has no pressure and the lamp is lit.',
    repair: 'Mend the circuit that was lost, bleed it, and centre the shuttle again.',
    parts: ['shuttle'],
    cautions: OPENING,
  },
  {
    id: 'proportioning',
    prior: 2,
    name: 'proportioning valve faulty',
    plain: 'The valve that holds back the rear brakes does so too early.',
    apply: moves((p, s) => ({ split_Pa: p.split_Pa * splitLeft(s) })),
    signs: {},
    confirm: 'Front and rear part earlier than they should in the sweep.',
    repair: 'Renew the valve; sweep again.',
    parts: ['shuttle'],
    cautions: OPENING,
  },
  {
    id: 'seized-front',
    prior: 4,
    brings: ['hard', 'pulls', 'drags'],
    name: 'seized front cylinder or caliper',
    plain: 'A front brake does not move: the pedal is hard and high though the booster is sound.',
    apply: moves((p, s) =>
      s === 0
        ? {}
        : {
            stiffness_m3PerPa: p.stiffness_m3PerPa * seized(FRONT, s),
            takeUp_m3: p.takeUp_m3 * seized(FRONT, s),
          },
    ),
    signs: { 'axle.front': 'stuck', 'pedal-high': 'high' },
    confirm:
      'Pressure at a force is right, so the booster is cleared; one front wheel does not hold or does not free.',
    repair: 'Free or renew the caliper or cylinder; look at both of the axle.',
    parts: ['front-wheels'],
    cautions: OPENING,
  },
  {
    id: 'seized-rear',
    prior: 4,
    brings: ['hard', 'pulls', 'drags'],
    name: 'seized rear cylinder or caliper',
    plain: 'A rear brake does not move: the pedal is hard and high though the booster is sound.',
    apply: moves((p, s) =>
      s === 0
        ? {}
        : {
            stiffness_m3PerPa: p.stiffness_m3PerPa * seized(REAR, s),
            takeUp_m3: p.takeUp_m3 * seized(REAR, s),
          },
    ),
    signs: { 'axle.rear': 'stuck', 'pedal-high': 'high' },
    confirm:
      'Pressure at a force is right, so the booster is cleared; one rear wheel does not hold or does not free.',
    repair: 'Free or renew the caliper or cylinder; look at both of the axle.',
    parts: ['rear-wheels'],
    cautions: OPENING,
  },
  {
    id: 'linings',
    prior: 10,
    brings: ['hard'],
    name: 'linings glazed, wet or worn',
    plain: 'The linings no longer grip as they should: you push harder for the same stop.',
    apply: (healthy) => [...healthy],
    signs: { linings: 'poor' },
    confirm: 'Pressures and travel are right, so the booster is cleared; the linings are glazed or wet.',
    repair: 'Renew the linings on both sides, and find what wetted them.',
    parts: ['linings'],
    cautions: ['lining-dust'],
  },
  {
    id: 'hose-blocked-wheel',
    prior: 4,
    brings: ['drags', 'pulls'],
    name: 'flexible brake hose blocked',
    plain: 'A brake hose has closed up inside: that wheel holds late and lets go late.',
    apply: moves((p, s) => (s === 0 ? {} : { stiffness_m3PerPa: p.stiffness_m3PerPa * (1 - FRONT) })),
    signs: { 'axle.front': 'stuck' },
    confirm: 'The wheel frees as the bleed screw is opened, and not as the union above the hose is.',
    repair: 'Renew the hoses of the axle, both sides.',
    parts: ['lines'],
    cautions: OPENING,
  },
  {
    id: 'stop-switch',
    prior: 4,
    brings: ['lamp'],
    name: 'stop-lamp switch out of adjustment',
    plain: 'The stop lamps are always on, or come late.',
    apply: (healthy) => [...healthy],
    signs: { 'stop-lamps': 'wrong' },
    confirm: 'Lamps follow the switch moved by hand.',
    repair: 'Set or renew the switch.',
    parts: ['switches'],
    cautions: [],
  },
  {
    id: 'level-switch',
    prior: 4,
    brings: ['lamp', 'fluid'],
    name: 'level low, or its switch',
    plain: 'The warning lamp is lit by the fluid level or its switch.',
    apply: (healthy) => [...healthy],
    signs: { lamp: 'level' },
    confirm: 'The lamp goes out as the level switch is unplugged.',
    repair: 'Find where the fluid went before it is filled up; renew the switch where the level was right.',
    parts: ['switches'],
    cautions: ['fluids'],
  },
  {
    id: 'parking-cables',
    prior: 4,
    brings: ['drags'],
    name: 'parking cables seized',
    plain: 'A cable of the parking brake no longer moves freely.',
    apply: (healthy) => [...healthy],
    signs: { parking: 'unlike' },
    confirm: 'The cable is tight with both ends off.',
    repair: 'Renew the cable, set the shoes before it, and exercise it.',
    parts: ['parking'],
    cautions: [],
  },
];

/** How far each look can be trusted: our judgement. */
export const looks: readonly Look[] = [
  { item: 'linings', miss: 0.1, falseAlarm: 0.05 },
  { item: 'axle.front', miss: 0.1, falseAlarm: 0.05 },
  { item: 'axle.rear', miss: 0.1, falseAlarm: 0.05 },
  { item: 'pedal-high', miss: 0.15, falseAlarm: 0.1 },
  { item: 'lamp', miss: 0.02, falseAlarm: 0.02 },
  { item: 'stop-lamps', miss: 0.02, falseAlarm: 0.02 },
  { item: 'parking', miss: 0.1, falseAlarm: 0.05 },
];

const TRAVELS = [SHOWN_BY_UNIT.travel, 'sink', 'axles'];
/** In which both axles are read beside each other. */
export const SWEPT = ['sweep', 'other-sweep'];
const FLUID = ['front', 'rear'];

/** What can be changed in wheel brakes, and what that makes stale. */
export const parts: readonly Part[] = [
  part('master', 'Master cylinder', [...TRAVELS, SHOWN_BY_UNIT.pressure, ...SWEPT, 'lamps'], FLUID),
  part('shuttle', 'Combination valve: proportioning and shuttle', [...TRAVELS, ...SWEPT, 'lamps'], FLUID),
  part('front-wheels', 'Front calipers or cylinders', TRAVELS, FLUID),
  part('rear-wheels', 'Rear calipers or cylinders', [...TRAVELS, ...SWEPT], FLUID),
  part('linings', 'Pads or linings', ['wheels', ...TRAVELS], []),
  part('switches', 'Lamp or level switch', ['lamps'], []),
  part('parking', 'Parking brake cables', ['parking'], []),
  line('lines', 'Brake line or hose, or bled', [...TRAVELS, ...SWEPT], FLUID),
];

export const leakPoints: readonly Port[] = [
  { id: 'master', name: 'Master cylinder', short: 'Master', quantity: null },
];
