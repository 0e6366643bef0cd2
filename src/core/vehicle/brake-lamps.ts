/** What a decoupled brake has found of itself, and what the vehicle does. */
export interface LampCauses {
  readonly accumulatorLow: boolean;
  /** The pedal works the wheels by itself. */
  readonly fallback: boolean;
  readonly parking: boolean;
  readonly level: boolean;
  /** One of two sensors that tell the same. */
  readonly redundantSensor: boolean;
  readonly capacitor: boolean;
  readonly regeneration: boolean;
  readonly wheelSpeed: boolean;
  readonly yaw: boolean;
  /** A wheel is kept from locking or spinning just now. */
  readonly slipActive: boolean;
  readonly moving: boolean;
}

/** Lamps and buzzer, as the vehicle’s interface calls them; the slip lamp flashes where it is on. */
export interface BrakeLamps {
  readonly red: boolean;
  readonly yellow: boolean;
  readonly antiLock: boolean;
  readonly stability: boolean;
  readonly slip: boolean;
  readonly buzzer: boolean;
}

export const NO_CAUSE: LampCauses = {
  accumulatorLow: false,
  fallback: false,
  parking: false,
  level: false,
  redundantSensor: false,
  capacitor: false,
  regeneration: false,
  wheelSpeed: false,
  yaw: false,
  slipActive: false,
  moving: false,
};

/**
 * What lights. Handbook-models 8.9: loss = accumulator low ∨ fallback; red = parking ∨ level ∨ loss; yellow = redundant sensor ∨
 * capacitor ∨ regeneration, a fault without loss of braking; anti-lock = wheel speed ∨ loss; stability = anti-lock ∨ yaw; slip
 * flashes while active; buzzer = loss ∧ moving.
 */
export function brakeLamps(of: LampCauses): BrakeLamps {
  const loss = of.accumulatorLow || of.fallback;
  const antiLock = of.wheelSpeed || loss;
  return {
    red: of.parking || of.level || loss,
    yellow: of.redundantSensor || of.capacitor || of.regeneration,
    antiLock,
    stability: antiLock || of.yaw,
    slip: of.slipActive,
    buzzer: loss && of.moving,
  };
}

/** What may be behind a lamp, as it is looked for: the next of them is isolated where the one before is out of it. */
const BEHIND: Readonly<Record<keyof BrakeLamps, readonly (keyof LampCauses)[]>> = {
  red: ['parking', 'level', 'accumulatorLow', 'fallback'],
  yellow: ['redundantSensor', 'capacitor', 'regeneration'],
  antiLock: ['accumulatorLow', 'fallback', 'wheelSpeed'],
  stability: ['accumulatorLow', 'fallback', 'wheelSpeed', 'yaw'],
  slip: ['slipActive'],
  buzzer: ['accumulatorLow', 'fallback'],
};

/**
 * What explains all lamps that are lit at once and none that is out, one cause alone, in the order in which they are isolated. Empty
 * where no single cause does.
 */
export function singleCauses(lit: BrakeLamps, moving: boolean): (keyof LampCauses)[] {
  const lamps = Object.keys(BEHIND) as (keyof BrakeLamps)[];
  const first = lamps.find((lamp) => lit[lamp]);
  if (!first) return [];
  return BEHIND[first].filter((cause) => {
    const shown = brakeLamps({ ...NO_CAUSE, moving, [cause]: true });
    return lamps.every((lamp) => shown[lamp] === lit[lamp]);
  });
}
