import { rootOfFalling } from '../numeric/root';
import { axleLoads_N, GRAVITY_M_PER_S2, locksFirst, type Body, type Locking } from './axle-loads';
import { axleForces_N, axleGain_NPerPa, pressureFor_Pa, unassistedPedal_N, type Brakes } from './brake-force';
import { FAILED_ASSIST, FAILED_ASSIST_MPERS2, failedAssistLimit_m, failedAssistStop_m } from './stopping';

/** One axle of two disc brakes. SI. */
export interface Axle {
  /** Piston area on one side of one caliper. */
  readonly pistonArea_m2: number;
  readonly friction: number;
  readonly effectiveRadius_m: number;
}

/** What a foot alone works through. SI. */
export interface FootAlone extends Body {
  readonly front: Axle;
  readonly rear: Axle;
  readonly tyreRadius_m: number;
  readonly contact_Pa: number;
  readonly split_Pa: number;
  readonly slope: number;
  readonly masterBore_m: number;
  readonly pedalRatio: number;
  /** Of the booster, pressed along. */
  readonly spring_N: number;
  /** Way of the pedal to its stop, and of the pushrod before the master begins. */
  readonly stroke_m: number;
  readonly freeTravel_m: number;
  /** Between each pad and its disc. */
  readonly clearance_m: number;
  readonly give_m3PerPa: number;
  /** Part of its load that a tyre holds. */
  readonly grip: number;
}

/** What a pedal force comes to with no assist. SI. */
export interface StopAlone {
  readonly pressure_Pa: number;
  readonly deceleration_mPerS2: number;
  /** The axle whose tyres hold no more; null where both do. */
  readonly slides: 'front' | 'rear' | 'both' | null;
  /** From the speed of the rule; null where nothing slows the vehicle down. */
  readonly distance_m: number | null;
  readonly volume_m3: number;
  readonly travel_m: number;
}

/** Pads of the two calipers of an axle: two to each. */
const PADS = 4;
const CLOSE = 1e-6;

const masterArea_m2 = ({ masterBore_m }: FootAlone) => (Math.PI / 4) * masterBore_m ** 2;

/** Both axles as forces for pressures. */
export const brakesAlone = ({
  front,
  rear,
  tyreRadius_m,
  contact_Pa,
  split_Pa,
  slope,
}: FootAlone): Brakes => {
  const gain = ({ friction, pistonArea_m2, effectiveRadius_m }: Axle) =>
    axleGain_NPerPa(friction, pistonArea_m2, effectiveRadius_m, tyreRadius_m);
  return { front_NPerPa: gain(front), rear_NPerPa: gain(rear), contact_Pa, split_Pa, slope };
};

/** Fluid that the brakes take at a pressure, m³: Σ piston areas × clearance, and what hoses and calipers give. Handbook 11. */
export const taken_m3 = (
  { front, rear, clearance_m, give_m3PerPa }: FootAlone,
  pressure_Pa: number,
): number =>
  pressure_Pa > 0
    ? PADS * (front.pistonArea_m2 + rear.pistonArea_m2) * clearance_m + give_m3PerPa * pressure_Pa
    : 0;

/** Travel of the pedal at a pressure, m: i·(free travel + volume/A_mc). Handbook 11. */
export const travelAt_m = (brake: FootAlone, pressure_Pa: number): number =>
  pressure_Pa > 0
    ? brake.pedalRatio * (brake.freeTravel_m + taken_m3(brake, pressure_Pa) / masterArea_m2(brake))
    : 0;

/**
 * What a foot alone does: p = (F·i − F_s)/A_mc as far as the pedal goes; each axle’s force at most grip × its load at that
 * deceleration. Handbook 11.
 *
 * @param pedal_N force of the foot, N, from 0 up
 */
export function stopAlone(brake: FootAlone, pedal_N: number): StopAlone {
  const asked_Pa = Math.max(0, (pedal_N * brake.pedalRatio - brake.spring_N) / masterArea_m2(brake));
  const pressure_Pa = Math.min(asked_Pa, atStop_Pa(brake, asked_Pa));
  const { front_N, rear_N } = axleForces_N(brakesAlone(brake), pressure_Pa);
  const held = (deceleration: number) => {
    const loads = axleLoads_N(brake, deceleration);
    const most = { front: brake.grip * loads.front_N, rear: brake.grip * Math.max(0, loads.rear_N) };
    return {
      front: front_N > most.front,
      rear: rear_N > most.rear,
      force_N: Math.min(front_N, most.front) + Math.min(rear_N, most.rear),
    };
  };
  const deceleration_mPerS2 = rootOfFalling(
    (a) => held(a).force_N / brake.mass_kg - a,
    0,
    brake.grip * GRAVITY_M_PER_S2 + 1,
    CLOSE,
  );
  const { front, rear } = held(deceleration_mPerS2);
  return {
    pressure_Pa,
    deceleration_mPerS2,
    slides: front && rear ? 'both' : front ? 'front' : rear ? 'rear' : null,
    distance_m:
      deceleration_mPerS2 > CLOSE ? failedAssistStop_m(FAILED_ASSIST.speed_mPerS, deceleration_mPerS2) : null,
    volume_m3: taken_m3(brake, pressure_Pa),
    travel_m: travelAt_m(brake, pressure_Pa),
  };
}

/** Pressure at which the pedal is at its stop, Pa, up to another. */
function atStop_Pa(brake: FootAlone, most_Pa: number): number {
  if (travelAt_m(brake, most_Pa) <= brake.stroke_m) return most_Pa;
  return rootOfFalling((pressure_Pa) => brake.stroke_m - travelAt_m(brake, pressure_Pa), 1, most_Pa, 1);
}

/** What a stop that the rule of a failed assist asks for takes. SI. */
export interface RuleAlone {
  /** Force at the pedal, N, and how far it goes, m, to the deceleration of the rule. */
  readonly pedal_N: number;
  readonly travel_m: number;
  /** Fluid for it, and what the master gives in all its stroke, m³. */
  readonly volume_m3: number;
  readonly masterGives_m3: number;
  /** Longest stop of the rule, m. */
  readonly limit_m: number;
}

/** Pedal force and travel for the deceleration that both main rule families come to: 2.44 m/s². Handbook 11. */
export function ruleAlone(brake: FootAlone): RuleAlone {
  const pressure_Pa = pressureFor_Pa(brakesAlone(brake), brake.mass_kg * FAILED_ASSIST_MPERS2);
  const area_m2 = masterArea_m2(brake);
  return {
    pedal_N: unassistedPedal_N(pressure_Pa, { ...brake, masterArea_m2: area_m2 }),
    travel_m: travelAt_m(brake, pressure_Pa),
    volume_m3: taken_m3(brake, pressure_Pa),
    masterGives_m3: area_m2 * Math.max(0, brake.stroke_m / brake.pedalRatio - brake.freeTravel_m),
    limit_m: failedAssistLimit_m(FAILED_ASSIST.speed_mPerS),
  };
}

/** A hard stop, by which travel is judged, m/s². Handbook-models 11. */
const HARD_MPERS2 = 0.6 * GRAVITY_M_PER_S2;

const hard_Pa = (brake: FootAlone) => pressureFor_Pa(brakesAlone(brake), brake.mass_kg * HARD_MPERS2);

/** Pedal travel at a stop of 0.6 g, m. Handbook-models 11. */
export const travelAtHard_m = (brake: FootAlone): number => travelAt_m(brake, hard_Pa(brake));

/** Fluid that the brakes take at that stop, m³. */
export const takenAtHard_m3 = (brake: FootAlone): number => taken_m3(brake, hard_Pa(brake));

/** Pressure beyond every brake, Pa. */
const BEYOND_PA = 4e7;

/** The axle that locks first as the pressure rises; null where none does. */
export const locksFirstAlone = (brake: FootAlone): Locking | null =>
  locksFirst(brake, brakesAlone(brake), brake.grip, BEYOND_PA);
