import type { CautionId } from '../../contract/cautions';
import type { ComplaintId } from '../../contract/complaints';
import type { Fault, Look } from '../../contract/family';
import { backwards, stated } from './leaks';
import { grown, left } from '../severity';
import { movesCircuit, movesShared, type Side } from './parameters';

const BAR = 1e5;
const OPENING: readonly CautionId[] = ['held-by-check-valves', 'open-line'];
const VESSEL: readonly CautionId[] = ['held-by-check-valves', 'charged-vessel', 'open-line'];

const spent = left(0.8, 0.1);
/** Gas that is left beside a burst diaphragm, as a part of the shell: all else is fluid. */
const fluidInside = left(0.02, 0.005);
const drifted = grown(8 * BAR, 30 * BAR);
const worn = grown(0.3, 1.5);
const dragging = grown(2, 9);
const pinched = grown(stated(1e-15), stated(1e-13));
/** Another sphere on the same thread: less gas, and another shell. */
const softer = left(0.75, 0.4);
const larger = grown(0.15, 0.4);
/** Fluids on another base are up to three times as thick at 20 °C. Handbook-models P.2. */
const thicker = grown(0.5, 2);

const SIDES: readonly Side[] = ['front', 'rear'];
const accumulator = (side: Side) => `accumulator-${side}`;
const valve = (side: Side) => `valve-${side}`;
const block = (side: Side) => `block-${side}`;

/** A fault that either circuit can have, each with half of the weight. */
const either = (make: (side: Side) => Fault): Fault[] =>
  SIDES.map(make).map((fault) => ({ ...fault, prior: fault.prior / SIDES.length }));

/** The same, either way off, each with half of that again. */
const eitherWay = (make: (side: Side, way: 'high' | 'low', sign: 1 | -1) => Fault): Fault[] =>
  [...either((side) => make(side, 'high', 1)), ...either((side) => make(side, 'low', -1))].map((fault) => ({
    ...fault,
    prior: fault.prior / 2,
  }));

const LAMP: readonly ComplaintId[] = ['lamp'];

/** Faults of two circuits of stored pressure, named and weighted as in handbook-models 8.6. */
export const faults: readonly Fault[] = [
  ...either((side) => ({
    id: `gas-loss-${side}`,
    prior: 22,
    brings: ['lamp', 'runs-often', 'fades'],
    name: `gas lost from the ${side} accumulator`,
    plain: `The gas behind the fluid of the ${side} circuit is nearly gone: its pump cuts in often and there is little in reserve.`,
    apply: movesCircuit(side, (p, s) => ({ preCharge_Pa: p.preCharge_Pa * spent(s) })),
    signs: { ticks: 'ticks' },
    confirm: `Emptied and charged, the gauge of the ${side} circuit jumps to less than the pre-charge; its lamp goes out late and few applications are left.`,
    repair:
      'Sealed ones are replaced, bolted ones rebuilt and filled with nitrogen by the maker’s procedure; charge from empty again.',
    parts: [accumulator(side)],
    cautions: VESSEL,
  })),
  ...either((side) => ({
    id: `burst-${side}`,
    prior: 7,
    brings: ['lamp', 'runs-often', 'hard'],
    name: `diaphragm of the ${side} accumulator burst`,
    plain: `The ${side} accumulator is full of fluid: its gas has gone, and nothing is in reserve.`,
    apply: movesCircuit(side, (p, s) =>
      s === 0 ? {} : { shell_m3: p.shell_m3 * fluidInside(s), preCharge_Pa: 0 },
    ),
    signs: { ticks: 'ticks' },
    confirm: `No flick-up, full at once, and fewer than two applications on the ${side} circuit with the engine off.`,
    repair: 'Replace it by the maker’s procedure. It may still hold pressure: handle it as a charged vessel.',
    parts: [accumulator(side)],
    cautions: VESSEL,
  })),
  ...eitherWay((side, way, sign) => ({
    id: `block-${side}-${way}`,
    prior: 5,
    brings: way === 'low' ? LAMP : ['runs-often'],
    name: `valve block of the ${side} circuit set ${way}`,
    plain: `The valve block of the ${side} circuit lets the pump in and out at too ${way} a pressure.`,
    apply: movesCircuit(side, (p, s) => ({
      in_Pa: p.in_Pa + sign * drifted(s),
      out_Pa: p.out_Pa + sign * drifted(s),
    })),
    signs: {},
    confirm: `Cut-in and cut-out of the ${side} circuit off by as much, read on a gauge that was checked.`,
    repair: 'Set it by the maker’s procedure or renew the block; read both again.',
    parts: [block(side)],
    cautions: OPENING,
  })),
  ...either((side) => ({
    id: `check-${side}`,
    prior: 8,
    brings: LAMP,
    name: `check valve of the ${side} circuit leaks`,
    plain: `The check valve of the ${side} circuit lets stored fluid back when the engine is off.`,
    apply: movesCircuit(side, (p, s) => ({ check_m3PerS: p.check_m3PerS + backwards(s) })),
    signs: {},
    confirm: `With the engine off the ${side} circuit falls within minutes, nothing wet; charge and times as they should be.`,
    repair: 'Clean or renew the check valve of the block; watch it stand again.',
    parts: [block(side)],
    cautions: OPENING,
  })),
  ...either((side) => ({
    id: `valve-worn-${side}`,
    prior: 9,
    brings: LAMP,
    name: `${side} distribution valve worn`,
    plain: `The ${side} distribution valve leaks more than it is made to, so its lamp lights sooner after standing.`,
    apply: movesCircuit(side, (p, s) => ({ clearance_m: p.clearance_m * (1 + worn(s)) })),
    signs: {},
    confirm: `Stand to the lamp too short for the oil’s warmth on the ${side} circuit, and short on the same way at every warmth.`,
    repair: 'Renew the distribution valve; watch the stand to the lamp again.',
    parts: [valve(side)],
    cautions: OPENING,
  })),
  ...either((side) => ({
    id: `valve-sticks-${side}`,
    prior: 3,
    brings: ['drags', 'grabs'],
    name: `${side} distribution valve sticking`,
    plain: `The spool of the ${side} distribution valve drags: brakes come late and stay on.`,
    apply: movesCircuit(side, (p, s) => ({ friction_N: p.friction_N * (1 + dragging(s)) })),
    signs: {},
    confirm: `At one force the ${side} brakes stand much higher coming down than going up, and some is left released.`,
    repair: 'Clean or renew the valve and the fluid; meter again both ways.',
    parts: [valve(side)],
    cautions: OPENING,
  })),
  ...eitherWay((side, way, sign) => ({
    id: `lamp-${side}-${way}`,
    prior: 6,
    brings: LAMP,
    name: `${side} pressure switch ${way}`,
    plain: `The low-pressure lamp of the ${side} circuit lights at too ${way} a pressure.`,
    apply: movesCircuit(side, (p, s) => ({ lamp_Pa: Math.max(0, p.lamp_Pa + sign * drifted(s)) })),
    signs: {},
    confirm: `Only the pressure at which the ${side} lamp lights is off.`,
    repair: 'Renew the switch, the circuit at zero; read where its lamp lights again.',
    parts: [`switch-${side}`],
    cautions: OPENING,
  })),
  ...either((side) => ({
    id: `sphere-${side}`,
    prior: 4,
    brings: ['lamp', 'runs-often'],
    name: `wrong sphere on the ${side} circuit`,
    plain: `The accumulator of the ${side} circuit is not the one that belongs there: it fits the thread, and holds other gas.`,
    apply: movesCircuit(side, (p, s) => ({
      preCharge_Pa: p.preCharge_Pa * softer(s),
      shell_m3: p.shell_m3 * (1 + larger(s)),
    })),
    signs: { label: 'other' },
    confirm: `Flick-up and the volume worked out from its charge are both another sphere’s; its label tells which.`,
    repair: 'Fit the one that belongs there, its ring seated; charge from empty again.',
    parts: [accumulator(side)],
    cautions: VESSEL,
  })),
  ...either((side) => ({
    id: `ring-${side}`,
    prior: 5,
    brings: ['fluid', 'lamp'],
    name: `seal ring pinched, ${side} circuit`,
    plain: `A seal ring of the ${side} circuit was pinched as it was fitted, and fluid comes out.`,
    apply: movesCircuit(side, (p, s) => ({ outside_m3PerS: p.outside_m3PerS + pinched(s) })),
    signs: { seep: 'wet' },
    confirm: `Wet at the seat of the ${side} circuit’s accumulator, wiped dry and wet again.`,
    repair: 'A new ring, its recess clean, seated before the sphere is screwed on; look with card again.',
    parts: [accumulator(side)],
    cautions: VESSEL,
  })),
  {
    id: 'wrong-fluid',
    prior: 3,
    brings: ['fluid'],
    name: 'wrong fluid',
    plain: 'The system was filled with a fluid that does not belong in it, and it destroys seals.',
    apply: movesShared((p, s) => ({ thickness: p.thickness * (1 + thicker(s)) })),
    signs: { seep: 'wet', colour: 'other' },
    confirm: 'Colour and smell of another fluid; it stands longer to the lamp than its oil’s warmth allows.',
    repair: 'Drain and flush as the maker says, renew every seal that it touched, fill with the right one.',
    parts: ['fluid'],
    cautions: [...OPENING, 'fluids'],
  },
];

/** What is looked at, felt for and asked, and how far that can be trusted. Handbook-models 8.6; label and colour by judgement. */
export const looks: readonly Look[] = [
  { item: 'seep', falseAlarm: 0.02, miss: 0.15 },
  { item: 'ticks', falseAlarm: 0.05, miss: 0.4 },
  { item: 'label', falseAlarm: 0.02, miss: 0.3 },
  { item: 'colour', falseAlarm: 0.03, miss: 0.4 },
];
