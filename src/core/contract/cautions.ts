/** A hazard and what to do about it. Handbook 2. */
export interface Caution {
  readonly hazard: string;
  readonly action: string;
}

export const CAUTIONS = {
  'bench-pressure': {
    hazard: 'Fluid under pressure. A hose or plug that lets go can injure; a fine jet goes through skin.',
    action:
      'Shield down, eye protection on, hoses rated for the test pressure. Raise pressure in steps and never stand in line with a plug. Look for seeps with card, never by hand. Treat suspected injection as an emergency.',
  },
  vacuum: {
    hazard: 'Vapour in a hose or a failed diaphragm can ignite.',
    action:
      'Air the can and hoses first, keep flames and sparks away, and never blow through a valve by mouth: use a bulb or hand pump.',
  },
  'running-engine': {
    hazard: 'Running engine.',
    action: 'Exhaust extraction on, gear in neutral or park, wheels chocked.',
  },
  fluids: {
    hazard: 'Brake fluids of different kinds destroy seals when they meet, and all irritate skin and eyes.',
    action:
      'Fill only with the fluid the profile names. Gloves on. Glycol fluid strips paint: wipe spills with water.',
  },
  'spring-casing': {
    hazard: 'The can holds a strong spring and flies apart when its clamp is undone.',
    action: 'Do not open it on the bench. Use the press and the maker’s procedure.',
  },
  'moving-rod': {
    hazard: 'A rod or lever that moves with the force of the vacuum crushes what is in its way.',
    action:
      'Block the lever or the wheels, set the rod square on the load cell, keep hands clear whenever the tank holds vacuum.',
  },
  'lining-dust': {
    hazard: 'Brake dust harms the lungs.',
    action: 'No compressed air on the unit. Wipe it down wet.',
  },
  'held-by-check-valves': {
    hazard: 'Fluid under pressure that stays when the pump has stopped, behind its check valves.',
    action:
      'Pump off and secured. Apply until the gauge behind every check valve reads zero before anything is opened. Never trust a lamp, a soft pedal or the time that went by.',
  },
  'charged-vessel': {
    hazard: 'An accumulator holds gas under pressure with no fluid in it too.',
    action:
      'Do not heat, drill, weld or open it. Fill it with nitrogen only, by the maker’s procedure; handle and dispose of it as a charged vessel.',
  },
  'starts-by-itself': {
    hazard:
      'A pump that starts by itself whenever the pressure falls, and with the ignition or a door on some vehicles.',
    action:
      'Take its fuse out and secure it before hands, tools or loose lines are near. Never bridge its switch for more than five seconds.',
  },
  'wakes-itself': {
    hazard: 'A brake that wakes as a door is opened or a remote is used, and presses by itself.',
    action:
      'Remote out of reach, doors as the maker says, its fuse out and kept by you before hands are near rods, pads or lines.',
  },
  'machine-stands': {
    hazard: 'A machine or a raised implement that moves while its brakes are tested.',
    action: 'Wheels chocked, implements on the ground, nobody between frame and wheel.',
  },
  'body-moves': {
    hazard: 'A levelling ram that lifts or drops the body by itself, as it is charged, bled or let stand.',
    action:
      'Body on stands before a ram or its line is touched, the ram line read at zero as well. Nobody under it or in a wheel arch while it is lifted, lowered or charged; lower it slowly and read heights from outside.',
  },
  'high-current': {
    hazard: 'A feed that carries tens of amperes: a slip of a tool burns, and melts what it touches.',
    action:
      'Fuse out and rings off before hands or tools are near its terminals. Battery earth off first and on last. Never bridge its fuse.',
  },
  'held-motor': {
    hazard: 'A motor that is held at its full force overheats in seconds.',
    action: 'Hold it for five seconds at the most, let go at once, and let it cool before it is held again.',
  },
  'pierced-lead': {
    hazard: 'A pierced lead corrodes, and a pierced shield lets noise into the signal that brakes.',
    action:
      'Read at pins made for it or through a lead put in between. Never pierce a lead, least of all a shielded one.',
  },
  'high-voltage': {
    hazard:
      'High voltage of a hybrid or an electric drive kills, and stands in its parts after it was switched off.',
    action:
      'Isolated and proved dead by an authorised person, as the maker says, before anything is touched. Orange leads are left alone.',
  },
  'stored-charge': {
    hazard:
      'A capacitor keeps a brake alive with the battery off: it may press by itself, and burns what shorts it.',
    action:
      'Battery off, wait as the maker states, fifteen minutes where nothing is stated, then measure. Only the reading tells, by a meter proved on a live source before and after. Never short it.',
  },
  'open-line': {
    hazard: 'A line opened under pressure or vacuum.',
    action: 'Release the input, vent the vacuum and read every gauge at zero before any line comes off.',
  },
} as const satisfies Record<string, Caution>;

export type CautionId = keyof typeof CAUTIONS;
export const CAUTION_IDS = Object.keys(CAUTIONS) as [CautionId, ...CautionId[]];

const NOT_SAFE =
  'They do not say that a vehicle is safe to drive: the vehicle maker’s procedure, local regulation and a licensed technician decide that.';
/** Said wherever a verdict is given. */
export const NOT_CLAIMED = `These results say which limits the readings met on the bench. ${NOT_SAFE}`;
export const NOT_CLAIMED_OF_VEHICLE = `These results say which limits the readings met while it stood. ${NOT_SAFE}`;
