import type { Terminal } from '../model/member';
import type { InputDescriptor } from '../model/vectors';

/** Inputs that no gauge of a test tells, alike in every member. */
export const BAROMETER = {
  id: 'barometer_Pa',
  name: 'Barometer',
  quantity: 'barometer',
} as const satisfies InputDescriptor;

export const TEMPERATURE = {
  id: 'temperature_K',
  name: 'Room temperature',
  quantity: 'temperature',
} as const satisfies InputDescriptor;

export const ELAPSED = {
  id: 'elapsed_s',
  name: 'Time on hold',
  quantity: 'duration',
} as const satisfies InputDescriptor;

/** Applications, each of which takes as much as the one before it. */
export const STOPS = {
  id: 'applications',
  name: 'Applications since the source stopped',
  quantity: 'count',
} as const satisfies InputDescriptor;

/** Applications by foot or hand: neither their rhythm nor their depth is kept, and the next one finds what they left. */
export const APPLICATIONS = {
  ...STOPS,
  unsteady: { above: 1, part: 0.02 },
} as const satisfies InputDescriptor;

/** Pressure of the accumulator, by the gauge behind its check valve; until that is read, where a healthy one is switched off. */
export const STORED = {
  id: 'supply_Pa',
  name: 'Accumulator',
  quantity: 'pressure',
  from: { port: 'supply', as: 'source', until: 'cutOut' },
} as const satisfies InputDescriptor;

/** Fluid that a motor pump moves, as warm as its reservoir. */
export const FLUID = {
  id: 'fluid_K',
  name: 'Fluid',
  quantity: 'temperature',
  from: { port: 'fluid', as: 'source', until: 'source.fluid', stays: true },
} as const satisfies InputDescriptor;

/** A load valve in the line of a steering pump is closed until the gauge shows this, and the flow read there, Pa. Handbook-models 8.4. */
export const LOADED_PA = 50e5;

/** Outlets of a pump into the accumulators of two circuits, and where those are fed. */
export const CHARGED_CIRCUITS = [
  { id: 'charge', name: 'Charge, front circuit', coupling: 'pumped', circuit: 'front' },
  { id: 'charge-2', name: 'Charge, rear circuit', coupling: 'pumped', circuit: 'rear' },
] as const satisfies readonly Terminal[];

/** Lines of two circuits to their brakes, and the rod of the small master that gives the pedal its feel. */
export const BRAKE_CIRCUITS = [
  { id: 'front', name: 'Front brakes', coupling: 'fluid', circuit: 'front' },
  { id: 'rear', name: 'Rear brakes', coupling: 'fluid', circuit: 'rear' },
  { id: 'feel', name: 'Rod of the small master', coupling: 'rod' },
] as const satisfies readonly Terminal[];
