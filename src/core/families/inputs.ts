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

export const APPLICATIONS = {
  id: 'applications',
  name: 'Applications since the source stopped',
  quantity: 'count',
} as const satisfies InputDescriptor;
