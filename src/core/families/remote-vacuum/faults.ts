import type { CautionId } from '../../contract/cautions';
import { moving } from '../../model/vectors';
import type { Fault, Look } from '../../contract/family';
import { INHG_PA as INHG } from '../../quantities/units';
import { grown, left, passage } from '../severity';
import { parameters, restDifference_Pa } from './member';
import { leakPoints } from './ports';

const BAR = 1e5;
const PER_MIN = 1 / 60;

/** Air leaks from just begun to severe, m³/(s·Pa). Handbook-models 8.1. */
const sealLeak = grown(2e-11, 5e-9);
const poppetLeak = grown(5e-11, 1e-8);
const backLeak = grown(1e-11, 1e-9);
/** What is left of things. Handbook-models 8.1. */
const areaLeft = left(0.9, 0.6);
const crackRaised = left(1.5, 3);
const hysteresisRaised = left(2, 5);
/** Left at full activation as the breather closes, Pa; and how far the switch closes late, Pa. Handbook-models 8.1. */
const floorLeft = grown(0.5 * INHG, 6 * INHG);
const switchLate = grown(1 * BAR, 6 * BAR);
/** 0.05 to 5 cc/min out of lines and brakes that give 5·10⁻¹³ m³/Pa, as loss on a hold, Pa/s. Handbook-models 8.1. */
const cupLoss = grown(1 * BAR * PER_MIN, 100 * BAR * PER_MIN);
/** The handbook says no figures for what follows: these are judgements. */
const spoolLoss = grown(0.25 * BAR * PER_MIN, 2.5 * BAR * PER_MIN);
const rodLoss = grown(0.15 * BAR * PER_MIN, 1.5 * BAR * PER_MIN);
const valveResidual = grown(0.1 * BAR, 1 * BAR);
const checkResidual = grown(0.2 * BAR, 1.8 * BAR);
const checkPasses = left(0.9, 0.1);
const unbalanced = grown(0.8 * INHG, 8 * INHG);
const selfApply = grown(0.6 * BAR, 6 * BAR);
const hoseLoss = grown(0.04, 0.4);

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['spring-casing', 'open-line'];
const FLUID_SIDE: readonly CautionId[] = ['fluids', 'open-line'];

/** Weight of an outside seep, at whichever of its four points. */
const SEEP_PRIOR = 10;

const seepAt = (point: string, name: string, part: string, repair: string): Fault => ({
  id: `seep-${point}`,
  prior: SEEP_PRIOR / 4,
  brings: ['fluid'],
  name: `outside seep at ${name}`,
  plain: `Fluid weeps from the unit at the ${name}.`,
  apply: moves(() => ({})),
  signs: { [`seep-high.${point}`]: 'weeps' },
  confirm: 'Wiped dry, it is wet again on card within the hold.',
  repair,
  parts: [part],
  cautions: FLUID_SIDE,
});

/** Faults of a remote vacuum unit, named as in handbook 8.1. */
export const faults: readonly Fault[] = [
  {
    id: 'torn-diaphragm',
    prior: 14,
    brings: ['hard', 'fades'],
    name: 'torn diaphragm',
    plain:
      'The rubber diaphragm is torn, so air passes it into the vacuum side as soon as the unit is applied.',
    apply: moves((p, s) => ({ tear_m3PerSPa: p.tear_m3PerSPa + passage(s) })),
    signs: { 'hiss-held': 'hiss' },
    confirm:
      'Released, nothing is lost: both sides are evacuated. Applied, the vacuum goes fast, the supply sags and activation may stay above zero. Opened: light shows through the diaphragm.',
    repair: 'Renew the diaphragm; test ratio, runout and vacuum loss again.',
    parts: ['diaphragm'],
    cautions: OPENING,
  },
  {
    id: 'undersized-diaphragm',
    prior: 4,
    brings: ['hard'],
    causes: ['torn-diaphragm'],
    name: 'hardened or undersized diaphragm',
    plain: 'The diaphragm works on less area than it should: it is hard, or the wrong one.',
    apply: moves((p, s) => ({ effectiveArea_m2: p.effectiveArea_m2 * areaLeft(s) })),
    signs: {},
    confirm:
      'The output is low at every input while activation and runout input are right: the valve does its part. Opened: measure the diaphragm and its plate.',
    repair: 'Renew the diaphragm with the right one; test ratio and runout again.',
    parts: ['diaphragm'],
    cautions: OPENING,
  },
  {
    id: 'vacuum-seat-leak',
    prior: 6,
    brings: ['hard', 'fades'],
    name: 'control-valve vacuum seat leak',
    plain:
      'The valve that shuts the two sides apart leaks, so vacuum is lost as long as the unit is applied.',
    apply: moves((p, s) => ({ tear_m3PerSPa: p.tear_m3PerSPa + passage(s) })),
    signs: { 'hiss-held': 'hiss' },
    confirm:
      'Vacuum is lost applied and not released, as through a torn diaphragm. Opened: the diaphragm is sound, and the seat is marked or dirty.',
    repair: 'Clean or renew the vacuum seat.',
    parts: ['control-valve'],
    cautions: OPENING,
  },
  {
    id: 'hub-seal-leak',
    prior: 8,
    brings: ['fades', 'hiss'],
    name: 'diaphragm hub or shaft seal leak',
    plain: 'Air leaks past the seal in the middle of the diaphragm.',
    apply: moves((p, s) => ({ leak_m3PerSPa: p.leak_m3PerSPa + sealLeak(s) })),
    signs: { 'hiss-rest': 'hiss', 'hiss-held': 'hiss' },
    confirm:
      'Vacuum is lost in both states, with a hiss round the hub, while B and runout stay right. Opened: the seal lip is worn or hard.',
    repair: 'Renew the hub and shaft seals.',
    parts: ['hub-seals'],
    cautions: OPENING,
  },
  {
    id: 'poppet-leak',
    prior: 12,
    brings: ['hiss', 'fades', 'drags'],
    name: 'control-valve poppet leak',
    plain: 'The air valve does not shut, so air bleeds into the working side all the time.',
    apply: moves((p, s) => ({
      restDifference_Pa: p.restDifference_Pa + restDifference_Pa(poppetLeak(s)),
      leak_m3PerSPa: p.leak_m3PerSPa + poppetLeak(s),
    })),
    signs: { 'hiss-rest': 'hiss', 'hiss-held': 'hiss' },
    confirm:
      'A hiss is heard at the breather, released and applied. It stops with the breather blanked. A large leak keeps the activation port off the supply at rest.',
    repair: 'Clean or renew the poppet and its seat.',
    parts: ['poppet'],
    cautions: OPENING,
  },
  {
    id: 'valve-sticking',
    prior: 12,
    brings: ['hard', 'grabs', 'drags'],
    name: 'control valve sticking',
    plain: 'The control valve sticks: it opens late and lets go late.',
    apply: moves((p, s) => ({
      crack_Pa: p.crack_Pa * crackRaised(s),
      hysteresis: p.hysteresis * hysteresisRaised(s),
      residual_Pa: p.residual_Pa + valveResidual(s),
    })),
    signs: {},
    confirm:
      'Crack comes late, and coming down the output stays above the rise. It repeats in the same place.',
    repair: 'Strip, clean and free the control valve; renew its seals.',
    parts: ['control-valve'],
    cautions: FLUID_SIDE,
  },
  {
    id: 'spool-seal-leak',
    prior: 6,
    brings: ['fluid'],
    causes: ['torn-diaphragm'],
    name: 'control-valve spool seal leak',
    plain: 'Brake fluid passes the control valve into the vacuum side.',
    apply: moves((p, s) => ({ fluidLoss_PaPerS: p.fluidLoss_PaPerS + spoolLoss(s) })),
    signs: { 'vacuum-side-fluid': 'fluid' },
    confirm:
      'Brake fluid in the activation hose or the breather. A dry hose fitted for the test is wet after it.',
    repair: 'Renew the spool seals; flush the vacuum hoses and the can.',
    parts: ['spool-seal'],
    cautions: FLUID_SIDE,
  },
  {
    id: 'cup-bypass',
    prior: 12,
    brings: ['sinks', 'hard'],
    name: 'slave cup bypass',
    plain: 'The piston cup lets pressure back past it, so the output falls while held.',
    apply: moves((p, s) => ({ fluidLoss_PaPerS: p.fluidLoss_PaPerS + cupLoss(s) })),
    signs: {},
    confirm: 'The held output falls with nothing wet outside, and the input gauge creeps up while it does.',
    repair: 'Renew the slave cup; hone or sleeve a scored bore.',
    parts: ['slave-cup', 'slave-body'],
    cautions: FLUID_SIDE,
  },
  {
    id: 'slave-check-stuck',
    prior: 5,
    brings: ['hard', 'drags'],
    name: 'slave piston check stuck',
    plain:
      'The check in the slave piston sticks: pressure does not pass freely with the assist off, or stays behind.',
    apply: moves((p, s) => ({
      passage: p.passage * checkPasses(s),
      residual_Pa: p.residual_Pa + checkResidual(s),
    })),
    signs: {},
    confirm:
      'Assist off, the output stops short of the input, or pressure stays after release and goes when the bleed screw is cracked.',
    repair: 'Free or renew the piston check.',
    parts: ['piston-check'],
    cautions: FLUID_SIDE,
  },
  {
    id: 'rod-seal-leak',
    prior: 9,
    brings: ['fluid'],
    causes: ['torn-diaphragm', 'valve-sticking'],
    name: 'push-rod seal leak',
    plain: 'Fluid is drawn along the push rod into the can: the level falls with nothing wet outside.',
    apply: moves((p, s) => ({ fluidLoss_PaPerS: p.fluidLoss_PaPerS + rodLoss(s) })),
    signs: { 'fluid-level': 'falls' },
    confirm: 'The level falls, nothing is wet outside, and fluid stands in the can when its plug is drawn.',
    repair: 'Renew the push-rod seal; drain and dry the can.',
    parts: ['rod-seal'],
    cautions: FLUID_SIDE,
  },
  {
    id: 'breather-blocked',
    prior: 5,
    brings: ['slow', 'hard'],
    name: 'blocked breather or filter',
    plain: 'Air cannot get in freely: assist comes slowly and never in full.',
    apply: moves((p, s) => ({ activationFloor_Pa: p.activationFloor_Pa + floorLeft(s) })),
    signs: { 'slow-apply': 'slow' },
    confirm: 'Activation does not reach zero, and does so at once with the breather hose off.',
    repair: 'Clear the breather hose; renew the filter.',
    parts: ['breather'],
    cautions: OPENING,
  },
  {
    id: 'passage-blocked',
    prior: 2,
    brings: ['hard', 'drags'],
    name: 'crossover pipe or passage blocked',
    plain:
      'The pipe between the two sides is blocked, so they do not balance at rest and the brake can come on by itself.',
    apply: moves((p, s) => ({
      restDifference_Pa: p.restDifference_Pa + unbalanced(s),
      selfApply_Pa: p.selfApply_Pa + selfApply(s),
    })),
    signs: {},
    confirm: 'Activation and supply differ at rest, or the output rises by itself as the vacuum arrives.',
    repair: 'Clear the crossover pipe and its passages.',
    parts: ['crossover'],
    cautions: OPENING,
  },
  {
    id: 'hose-collapsed',
    prior: 4,
    brings: ['slow', 'hard'],
    name: 'collapsed or restricted supply hose',
    plain: 'The vacuum hose closes up when the unit draws air.',
    apply: moves((p, s) => ({ hoseDrop: p.hoseDrop + hoseLoss(s) })),
    signs: { 'slow-apply': 'slow' },
    confirm: 'The gauge at the unit falls away from the gauge at the source as the unit is applied.',
    repair: 'Fit new vacuum-rated hose of the right bore.',
    parts: ['vacuum-line'],
    cautions: ['open-line'],
  },
  {
    id: 'check-valve-leak',
    prior: 8,
    brings: ['fades'],
    name: 'check valve leak or reversed',
    plain: 'The check valve does not hold the vacuum when the supply stops.',
    apply: moves((p, s) => ({ leak_m3PerSPa: p.leak_m3PerSPa + backLeak(s) })),
    signs: {},
    confirm: 'The loss stays when the unit is blanked off and the check valve alone is left holding.',
    repair: 'Renew the check valve, the right way round.',
    parts: ['check-valve'],
    cautions: ['open-line'],
  },
  seepAt('bleed-screw', 'bleed screw', 'bleed-screw', 'Clean the seat; renew the bleed screw.'),
  seepAt('end-cap', 'end cap', 'end-cap', 'Renew the end cap seal.'),
  seepAt('rod-hole', 'rod hole', 'rod-seal', 'Renew the push-rod seal.'),
  seepAt('switch', 'switch', 'switch', 'Renew the switch seal.'),
  {
    id: 'threads-damaged',
    prior: 3,
    brings: ['lamp'],
    name: 'over-screwed tapered switch or splayed port',
    plain: 'A tapered switch was screwed in too far and has spread the port.',
    apply: moves(() => ({})),
    signs: { threads: 'damaged' },
    confirm: 'Looked at: the thread is tapered or cracked, and the switch goes in past its shoulder.',
    repair: 'Do not tighten further. Repair or renew the housing; fit the right switch.',
    parts: ['switch'],
    cautions: FLUID_SIDE,
  },
  {
    id: 'switch-out-of-range',
    prior: 6,
    brings: ['lamp'],
    name: 'pressure switch out of range',
    plain: 'The stop-lamp switch closes at the wrong pressure.',
    apply: moves((p, s) => ({ switchCloses_Pa: p.switchCloses_Pa + switchLate(s) })),
    signs: {},
    confirm: 'A second switch on the same port closes in range.',
    repair: 'Renew the switch.',
    parts: ['switch'],
    cautions: FLUID_SIDE,
  },
];

/** How far what is looked at can be trusted. Handbook-models 8.1. */
export const looks: readonly Look[] = [
  { item: 'seep-first', miss: 0.1, falseAlarm: 0.03 },
  ...leakPoints.flatMap(({ id }) => [
    { item: `seep-low.${id}`, miss: 0.1, falseAlarm: 0.03 },
    { item: `seep-high.${id}`, miss: 0.05, falseAlarm: 0.03 },
  ]),
  { item: 'vacuum-side-fluid', miss: 0.1, falseAlarm: 0.02 },
  // The same look, by the level.
  { item: 'fluid-level', miss: 0.1, falseAlarm: 0.02 },
  { item: 'hiss-rest', miss: 0.15, falseAlarm: 0.05 },
  { item: 'hiss-held', miss: 0.15, falseAlarm: 0.05 },
  { item: 'slow-apply', miss: 0.2, falseAlarm: 0.05 },
  { item: 'threads', miss: 0.1, falseAlarm: 0.03 },
  { item: 'switch-rest', miss: 0.02, falseAlarm: 0.02 },
];
