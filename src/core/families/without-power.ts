import type { HealthyWhole } from '../contract/family';
import type { WithoutPower } from '../contract/without-power';
import { given_m3, type Emptied } from '../fluid/emptied';
import type { HeldBack } from '../fluid/held-back';
import { rootOfFalling } from '../numeric/root';
import { sentence } from '../quantities/sentence';
import { GRAVITY_M_PER_S2 } from '../vehicle/axle-loads';
import { axleForces_N } from '../vehicle/brake-force';
import {
  FAILED_ASSIST,
  FAILED_ASSIST_MPERS2,
  failedAssistLimit_m,
  failedAssistStop_m,
} from '../vehicle/stopping';
import { brakesOf, type StopFigures } from './stop-figures';

/** No foot presses harder. */
const MOST_N = 3000;
const CLOSE_N = 0.01;
/** How closely travel is told: brakes alike differ by as much in their clearances. */
const TRAVEL_TOLD_M = 1.5e-3;
/** A dry road holds no more than this part of the weight. */
const DRY = 0.8;

const { pedal_N: RULE_N, speed_mPerS } = FAILED_ASSIST;
const ASKED = { value: FAILED_ASSIST_MPERS2, quantity: 'acceleration' } as const;
const RULE = { value: RULE_N, quantity: 'force' } as const;
const SPEED = { value: speed_mPerS, quantity: 'speed' } as const;
const LIMIT = { value: failedAssistLimit_m(speed_mPerS), quantity: 'altitude' } as const;

/** How hard or how far a pedal is pressed, as the model has it. SI. */
interface Pressed {
  readonly input: string;
  readonly quantity: 'force' | 'travel';
  readonly most: number;
  /** How closely it is found. */
  readonly close: number;
  /** How closely the travel is told that comes with it, m. */
  readonly told_m: number;
}
const BY_FORCE: Pressed = {
  input: 'pedal_N',
  quantity: 'force',
  most: MOST_N,
  close: CLOSE_N,
  told_m: TRAVEL_TOLD_M,
};
/** A valve that meters by travel is set more closely than brakes are clear of their drums. */
const SET_WITHIN_M = 2e-4;

/** A pedal that sets the pressure by its travel, up to its stop. */
export const byTravel = (stop_m: number): Pressed => ({
  input: 'travel_m',
  quantity: 'travel',
  most: stop_m,
  close: 1e-6,
  told_m: SET_WITHIN_M,
});

/** How the pedal has to be pressed until what is told reaches so much. */
const pressedFor = (
  needed: number,
  at: (pressed: number) => number,
  { most, close }: Pressed = BY_FORCE,
): number => rootOfFalling((pressed) => needed - at(pressed), 0, most, close);

/** A master cylinder that the foot pushes through a booster. */
interface ByFoot {
  readonly stop: StopFigures | null;
  /** What the line to the rear goes through, where one line presses both axles. */
  readonly valve?: HeldBack;
  /** Readings of the pressure at each axle, where each has its own; and of the pedal’s travel. */
  readonly lines?: { readonly front: string; readonly rear: string };
  readonly travels?: string;
  readonly whole: HealthyWhole;
  /** Inputs under which the booster helps, besides the pedal force. */
  readonly powered: Readonly<Record<string, number>>;
  /** Those under which nothing does. */
  readonly alone: Readonly<Record<string, number>>;
}

/**
 * What braking by the foot alone is like: pedal force and travel of the stop that both main rule families ask of passenger cars,
 * with and without power, and the metres that their 500 N come to. Handbook 11, failed assist.
 *
 * @returns null where the profile does not say what a stop follows from
 */
export function byFoot({
  stop,
  valve,
  lines,
  travels = 'load.travel',
  whole,
  powered,
  alone: unpowered,
}: ByFoot): WithoutPower | null {
  if (!stop) return null;
  const brakes = brakesOf(stop, valve);
  const force_N = (power: typeof powered) => (pedal_N: number) => {
    const at = (reading: string) => whole.shows(reading, { ...power, pedal_N });
    if (!lines) {
      const { front_N, rear_N } = axleForces_N(brakes, at('load.pressure'));
      return front_N + rear_N;
    }
    return axleForces_N(brakes, at(lines.front)).front_N + axleForces_N(brakes, at(lines.rear)).rear_N;
  };
  const needed_N = stop.mass_kg * ASKED.value;
  const alone = { value: pressedFor(needed_N, force_N(unpowered)), quantity: 'force' } as const;
  const helped = { value: pressedFor(needed_N, force_N(powered)), quantity: 'force' } as const;
  const travel_m = whole.shows(travels, { ...unpowered, pedal_N: alone.value });
  const travel = { value: travel_m, quantity: 'travel', u: TRAVEL_TOLD_M } as const;
  const slows_mPerS2 = Math.min(DRY * GRAVITY_M_PER_S2, force_N(unpowered)(RULE_N) / stop.mass_kg);
  if (alone.value >= MOST_N || slows_mPerS2 <= 0)
    return {
      plain: [
        sentence('Without power no foot presses hard enough for a moderate stop ({asked}).', {
          asked: ASKED,
        }),
      ],
      figures: [{ name: 'Pedal force for that stop, with power', ...helped }],
    };
  const slows = { value: slows_mPerS2, quantity: 'acceleration' } as const;
  const metres = { value: failedAssistStop_m(speed_mPerS, slows_mPerS2), quantity: 'altitude' } as const;
  return {
    plain: [
      sentence(
        'Without power the foot alone works the brake: a moderate stop ({asked}) takes {alone} at the pedal instead of {helped}, and {travel} of its travel.',
        { asked: ASKED, alone, helped, travel },
      ),
      sentence(
        `With {rule} at the pedal it stops from {speed} in {metres}; rules for passenger cars ask for {limit} at most${metres.value > LIMIT.value ? ', which is less' : ''}.`,
        { rule: RULE, speed: SPEED, metres, limit: LIMIT },
      ),
    ],
    figures: [
      { name: 'Deceleration that the rule of a failed assist comes to', ...ASKED },
      { name: 'Pedal force for it, without power', ...alone },
      { name: 'Pedal force for it, with power', ...helped },
      { name: 'Pedal travel for it, without power', ...travel },
      { name: 'Deceleration with the pedal force of the rule, without power', ...slows },
      { name: 'Stopping distance with it, from the speed of the rule', ...metres },
      { name: 'The same, asked of passenger cars at most', ...LIMIT },
    ],
  };
}

/** A circuit whose brakes are filled from its own accumulator. */
export interface StoredCircuit {
  readonly name: string;
  readonly vessel: Emptied;
  /** Reading of its brakes' pressure. */
  readonly reading: string;
  /** Its low-pressure lamp, Pa. */
  readonly lamp_Pa: number;
  /** Fluid that its brakes take at a pressure, m³. */
  readonly taken_m3: (pressure_Pa: number) => number;
}

/** Brakes that nothing but stored pressure works. */
interface ByReserve {
  readonly stop: StopFigures | null;
  readonly whole: HealthyWhole;
  readonly powered: Readonly<Record<string, number>>;
  /** Reading of the pedal’s travel, where the pedal is pressed by a force. */
  readonly by: { readonly travel: string } | Pressed;
  readonly front: StoredCircuit;
  readonly rear: StoredCircuit;
}

/**
 * What braking is like on what is stored, the pump off: pedal force and travel of the stop that both main rule families ask of
 * passenger cars, how many of them each circuit has from its cut-in until its lamp, one behind the other, and that nothing is left
 * to brake with behind them. Handbook 8.6, 11.
 *
 * @returns null where the profile does not say what a stop follows from
 */
export function byReserve({ stop, whole, powered, by, front, rear }: ByReserve): WithoutPower | null {
  if (!stop) return null;
  const { front_NPerPa, rear_NPerPa, contact_Pa } = brakesOf(stop);
  const way = 'travel' in by ? BY_FORCE : by;
  const shown = (reading: string, pressed: number) =>
    whole.shows(reading, { ...powered, [way.input]: pressed });
  const force_N = (pressed: number) =>
    front_NPerPa * Math.max(0, shown(front.reading, pressed) - contact_Pa) +
    rear_NPerPa * Math.max(0, shown(rear.reading, pressed) - contact_Pa);
  const pedal = {
    value: pressedFor(stop.mass_kg * ASKED.value, force_N, way),
    quantity: way.quantity,
  } as const;
  const empty = sentence(
    'With nothing stored the pedal moves and brakes nothing: the vehicle waits until its lamps are out.',
  );
  const asked = { name: 'Deceleration of the stop', ...ASKED };
  if (pedal.value >= way.most)
    return {
      plain: [
        sentence('What is stored presses too little for a moderate stop ({asked}).', { asked: ASKED }),
        empty,
      ],
      figures: [asked],
    };
  const travel_m = 'travel' in by ? shown(by.travel, pedal.value) : pedal.value;
  const travel = { value: travel_m, quantity: 'travel', u: way.told_m } as const;
  const stopsOf = (circuit: StoredCircuit): number => {
    const pressure_Pa = shown(circuit.reading, pedal.value);
    const given = given_m3(circuit.vessel, Math.max(circuit.lamp_Pa, pressure_Pa), false);
    return Math.floor(given / circuit.taken_m3(pressure_Pa));
  };
  const counts = [front, rear].map((circuit) => ({
    name: circuit.name,
    value: stopsOf(circuit),
    quantity: 'count' as const,
  }));
  const stops = { value: Math.min(...counts.map(({ value }) => value)), quantity: 'count' } as const;
  return {
    plain: [
      sentence(
        `With the engine stopped the brake works on what is stored, with the usual effort: a moderate stop ({asked}) takes ${'travel' in by ? '{pedal} at the pedal and {travel} of its travel' : '{travel} of the pedal’s travel'}. From the least that is stored with the engine running it is enough for {stops} such stops, until a lamp lights.`,
        { asked: ASKED, pedal, travel, stops },
      ),
      empty,
    ],
    figures: [
      asked,
      ...('travel' in by ? [{ name: 'Pedal force for it', ...pedal }] : []),
      { name: 'Pedal travel for it', ...travel },
      ...counts.map(({ name, ...count }) => ({ name: `Such stops until the lamp, ${name}`, ...count })),
    ],
  };
}
